package live_test

import (
	"context"
	"errors"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"cuestart/live"
	"cuestart/planner"
)

// board is news that a test puts up, as the database has them.
type board struct {
	mu     sync.Mutex
	next   uint64
	news   map[uint64]planner.News
	broken bool
	looks  int
}

func (b *board) put(session uint64) {
	b.mu.Lock()
	defer b.mu.Unlock()
	b.next++
	b.news[b.next] = planner.News{Session: session}
}

func (b *board) look(context.Context) (map[uint64]planner.News, error) {
	b.mu.Lock()
	defer b.mu.Unlock()
	b.looks++
	if b.broken {
		return nil, errors.New("the database is away")
	}
	now := map[uint64]planner.News{}
	for id, session := range b.news {
		now[id] = session
	}
	return now, nil
}

func hears(l *live.Listener, within time.Duration) bool {
	select {
	case <-l.News:
		return true
	case <-time.After(within):
		return false
	}
}

// Who listens to a session hears of it, once for each piece of news and not of others,
// though it stays to be found for a while.
func TestNewsComeToWhomTheyAreFor(t *testing.T) {
	b := &board{news: map[uint64]planner.News{}}
	h := live.NewHub(b.look)
	ctx, end := context.WithCancel(context.Background())
	ran := make(chan struct{})
	go func() { h.Run(ctx); close(ran) }()
	one, other := h.Listen(1, false), h.Listen(2, true)
	for hears(one, 700*time.Millisecond) { // what was there before
	}
	b.put(1)
	h.Nudge()
	assert.True(t, hears(one, 5*time.Second))
	assert.False(t, hears(one, 1200*time.Millisecond), "once")
	assert.False(t, hears(other, 10*time.Millisecond))

	b.put(2) // written by another server: nobody nudges
	assert.True(t, hears(other, 5*time.Second))

	b.mu.Lock()
	b.broken = true
	b.mu.Unlock()
	b.put(1)
	h.Nudge()
	assert.False(t, hears(one, 700*time.Millisecond))
	b.mu.Lock()
	b.broken = false
	b.mu.Unlock()
	assert.True(t, hears(one, 5*time.Second), "when the database is back")

	other.Close()
	b.put(2)
	h.Nudge()
	assert.False(t, hears(other, 700*time.Millisecond))
	end()
	<-ran
	select {
	case <-one.Over():
	default:
		t.Error("who listens is let go when the program ends")
	}
}

// While nobody listens the database is left alone.
func TestNobodyListening(t *testing.T) {
	b := &board{news: map[uint64]planner.News{}}
	h := live.NewHub(b.look)
	ctx, end := context.WithTimeout(context.Background(), 1200*time.Millisecond)
	defer end()
	h.Run(ctx)
	assert.Zero(t, b.looks)
}
