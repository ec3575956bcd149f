package kept_test

import (
	"context"
	"errors"
	"fmt"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/kept"
)

func ExampleCache_Get() {
	var squares kept.Cache[int, int]
	read := func(context.Context) (int, error) { fmt.Println("worked out"); return 9, nil }
	for range 2 {
		nine, _ := squares.Get(context.Background(), 3, read)
		fmt.Println(nine)
	}
	// Output:
	// worked out
	// 9
	// 9
}

// However many ask after the same moment, it is read once; who asks after a later one is
// told what was read after that.
func TestManyAreToldOfOneRead(t *testing.T) {
	var c kept.Cache[string, int64]
	var reads atomic.Int64
	read := func(context.Context) (int64, error) {
		time.Sleep(5 * time.Millisecond)
		return reads.Add(1), nil
	}
	for round := int64(1); round <= 3; round++ {
		after := time.Now()
		var all sync.WaitGroup
		for range 200 {
			all.Go(func() {
				got, err := c.Since(t.Context(), "x", after, read)
				assert.NoError(t, err)
				assert.Equal(t, round, got)
			})
		}
		all.Wait()
	}
	assert.EqualValues(t, 3, reads.Load())
}

func TestWhatFailsIsNotKept(t *testing.T) {
	var c kept.Cache[string, string]
	_, err := c.Get(t.Context(), "x", func(context.Context) (string, error) { return "", errors.New("no") })
	require.Error(t, err)
	got, err := c.Get(t.Context(), "x", func(context.Context) (string, error) { return "yes", nil })
	require.NoError(t, err)
	assert.Equal(t, "yes", got)
	c.Clear()
	got, _ = c.Get(t.Context(), "x", func(context.Context) (string, error) { return "anew", nil })
	assert.Equal(t, "anew", got)
}

// Whoever asks first may go away: who waits with them still gets the answer, and they themselves
// wait no longer.
func TestWhoGoesAwayTakesTheAnswerFromNobody(t *testing.T) {
	var c kept.Cache[string, int]
	started, end := make(chan bool), make(chan bool)
	read := func(ctx context.Context) (int, error) {
		close(started)
		<-end
		return 7, ctx.Err()
	}
	first, leave := context.WithCancel(t.Context())
	var both sync.WaitGroup
	both.Go(func() {
		_, err := c.Get(first, "x", read)
		assert.ErrorIs(t, err, context.Canceled)
	})
	<-started
	both.Go(func() {
		got, err := c.Get(t.Context(), "x", read)
		assert.NoError(t, err)
		assert.Equal(t, 7, got)
	})
	leave()
	time.Sleep(5 * time.Millisecond)
	close(end)
	both.Wait()
}

// What is kept never grows without end.
func TestOnlySoManyAreKept(t *testing.T) {
	var c kept.Cache[int, int]
	reads := 0
	for range 2 {
		for key := range 1000 {
			c.Get(t.Context(), key, func(context.Context) (int, error) { reads++; return key, nil })
		}
	}
	assert.Greater(t, reads, 1000, "the first are read again")
	before := reads
	c.Get(t.Context(), 999, func(context.Context) (int, error) { reads++; return 0, nil })
	assert.Equal(t, before, reads)
}
