// Package gate stands in for a timing gate and a speed reading on a serial line: it is asked
// with a line, and answers with one, as such devices do. It can be made slow, garbled or
// absent.
package gate

import (
	"bytes"
	"errors"
	"fmt"
	"io"
	"math/rand/v2"
	"strings"
	"time"
)

// Device is what is on the line.
type Device string

// The devices: a gate answers "T 01.834 s", a speed reading "V 27.4 m/s".
const (
	Gate  Device = "gate"
	Speed Device = "speed"
)

// Mood is how the device behaves today.
type Mood string

// The moods.
const (
	Well    Mood = ""
	Slow    Mood = "slow"    // answers after ten seconds
	Garbled Mood = "garbled" // answers with noise
	Absent  Mood = "absent"  // there is nothing on the line
)

// Port is where lines are opened.
type Port struct{ Mood Mood }

// Open opens the line of a device. It fails where there is none.
func (p Port) Open(device string) (io.ReadWriteCloser, error) {
	if p.Mood == Absent || device != string(Gate) && device != string(Speed) {
		return nil, errors.New("nothing is on that line")
	}
	seed := uint64(time.Now().UnixNano())
	return &line{device: Device(device), mood: p.Mood, random: rand.New(rand.NewPCG(seed, 1)),
		gone: make(chan struct{})}, nil
}

// line is an open serial line. It greets, as devices do when they are opened.
type line struct {
	device Device
	mood   Mood
	random *rand.Rand
	out    bytes.Buffer
	gone   chan struct{}
}

// Write takes what is asked: "R" asks for a reading.
func (l *line) Write(asked []byte) (int, error) {
	if strings.TrimSpace(string(asked)) != "R" {
		return len(asked), nil
	}
	l.out.WriteString("# ready\r\n")
	switch {
	case l.mood == Garbled:
		l.out.WriteString("T 0\x001.\xff\r\n\r\n?\r\n")
	case l.device == Gate:
		fmt.Fprintf(&l.out, "T %06.3f s\r\n", 1.65+0.35*l.random.Float64())
	default:
		fmt.Fprintf(&l.out, "V %.1f m/s\r\n", 24+8*l.random.Float64())
	}
	return len(asked), nil
}

// Read gives what is on the line; a slow device keeps whoever reads waiting.
func (l *line) Read(into []byte) (int, error) {
	if l.mood == Slow {
		select {
		case <-l.gone:
			return 0, io.ErrClosedPipe
		case <-time.After(10 * time.Second):
		}
	}
	return l.out.Read(into)
}

// Close ends it, also for who waits.
func (l *line) Close() error {
	close(l.gone)
	return nil
}
