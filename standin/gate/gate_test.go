package gate_test

import (
	"bufio"
	"io"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/standin/gate"
)

func TestADeviceAnswersOnItsLine(t *testing.T) {
	for device, form := range map[string]string{"gate": `^T \d\d\.\d{3} s$`, "speed": `^V \d+\.\d m/s$`} {
		line, err := gate.Port{}.Open(device)
		require.NoError(t, err)
		_, err = io.WriteString(line, "?\r\n")
		require.NoError(t, err)
		_, err = io.WriteString(line, "R\r\n")
		require.NoError(t, err)
		lines := bufio.NewScanner(line)
		require.True(t, lines.Scan())
		assert.Equal(t, "# ready", lines.Text(), "it greets")
		require.True(t, lines.Scan())
		assert.Regexp(t, form, lines.Text())
		assert.False(t, lines.Scan(), "one reading for one question")
		require.NoError(t, line.Close())
	}
	_, err := gate.Port{Mood: gate.Absent}.Open("gate")
	assert.Error(t, err)
	_, err = gate.Port{}.Open("kettle")
	assert.Error(t, err)
}

// Who waits for a slow one is let go when the line is closed.
func TestASlowDeviceLetsGo(t *testing.T) {
	line, err := gate.Port{Mood: gate.Slow}.Open("gate")
	require.NoError(t, err)
	_, err = io.WriteString(line, "R\r\n")
	require.NoError(t, err)
	gone := make(chan error, 1)
	go func() {
		_, err := line.Read(make([]byte, 10))
		gone <- err
	}()
	require.NoError(t, line.Close())
	select {
	case err := <-gone:
		assert.ErrorIs(t, err, io.ErrClosedPipe)
	case <-time.After(5 * time.Second):
		t.Fatal("it still waits")
	}
}
