package learn

import (
	"bufio"
	"context"
	"io"
	"strconv"
	"strings"
	"time"

	"cuestart/core/plan"
)

// Port opens the serial line of a measuring device: "gate" for times, "speed" for speeds. A
// device is asked with the line "R" and answers with "T 01.834 s" or "V 27.4 m/s", after
// lines of its own that begin with #.
type Port interface {
	Open(device string) (io.ReadWriteCloser, error)
}

// Reading is what a device measured.
type Reading struct {
	Value float64 `json:"value"`
	Unit  string  `json:"unit"`
}

// How long a reading may take, and how many lines are looked at.
const (
	readWithin = 3 * time.Second
	mostLines  = 20
)

// Read asks a device for a reading. It fails with [plan.Problems] that say what to do.
func (lr *Learn) Read(ctx context.Context, device string) (Reading, error) {
	if lr.Port == nil {
		return Reading{}, plan.In("gate", "No gate or speed reading is set up. Type the result.")
	}
	line, err := lr.Port.Open(device)
	if err != nil {
		return Reading{}, plan.In("gate", "Nothing answers on that line. Is it plugged in? Type the result meanwhile.")
	}
	type answer struct {
		reading Reading
		ok      bool
	}
	got := make(chan answer, 1)
	go func() {
		reading, ok := readOne(line)
		got <- answer{reading, ok}
	}()
	defer line.Close() // who still reads then is let go
	ctx, cancel := context.WithTimeout(ctx, readWithin)
	defer cancel()
	select {
	case <-ctx.Done():
		return Reading{}, plan.In("gate", "The device takes too long. Try once more, or type the result.")
	case a := <-got:
		if !a.ok {
			return Reading{}, plan.In("gate",
				"The device said something that is no result. Try once more, or type the result.")
		}
		return a.reading, nil
	}
}

func readOne(line io.ReadWriter) (Reading, bool) {
	if _, err := io.WriteString(line, "R\r\n"); err != nil {
		return Reading{}, false
	}
	lines := bufio.NewScanner(line)
	for n := 0; n < mostLines && lines.Scan(); n++ {
		words := strings.Fields(lines.Text())
		if len(words) != 3 || words[0] != "T" && words[0] != "V" {
			continue
		}
		if value, err := strconv.ParseFloat(words[1], 64); err == nil && value > 0 && value < 1000 {
			return Reading{value, words[2]}, true
		}
	}
	return Reading{}, false
}
