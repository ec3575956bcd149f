// Package live tells pages that are open that something is new: one look at the
// database for all of them, as often as it takes to be there within a second, and at
// once for what was changed by this process.
package live

import (
	"context"
	"log/slog"
	"sync"
	"time"

	"cuestart/planner"
)

// every is how often the hub looks, while anybody listens.
const every = 500 * time.Millisecond

// Hub fans out to whoever listens to a session.
type Hub struct {
	look   func(context.Context) (map[uint64]planner.News, error)
	nudged chan struct{}
	over   chan struct{} // closed when nothing more is looked for

	mu        sync.Mutex
	listeners map[uint64]map[*Listener]struct{} // by session
}

// NewHub is a hub that looks for news with look: the sessions of which something is new
// in the last few seconds, by the id of what is new.
func NewHub(look func(context.Context) (map[uint64]planner.News, error)) *Hub {
	return &Hub{look: look, nudged: make(chan struct{}, 1), over: make(chan struct{}),
		listeners: map[uint64]map[*Listener]struct{}{}}
}

// Over is a hub on the news of what the use cases stand on, which looks until ctx ends.
func Over(ctx context.Context, base *planner.Base) *Hub {
	h := NewHub(base.News)
	base.Nudge = h.Nudge
	go h.Run(ctx)
	return h
}

// Nudge has the hub look at once.
func (h *Hub) Nudge() {
	select {
	case h.nudged <- struct{}{}:
	default:
	}
}

// Listener hears of a session.
type Listener struct {
	// News receives when something was found to be new: whoever reads after that moment
	// reads it. What comes faster than it is read is one.
	News chan time.Time

	session uint64
	staff   bool
	hub     *Hub
}

// Listen begins to hear of a session, of what is for staff alone too where staff listens;
// end it with [Listener.Close].
func (h *Hub) Listen(session uint64, staff bool) *Listener {
	l := &Listener{News: make(chan time.Time, 1), session: session, staff: staff, hub: h}
	h.mu.Lock()
	defer h.mu.Unlock()
	if h.listeners[session] == nil {
		h.listeners[session] = map[*Listener]struct{}{}
	}
	h.listeners[session][l] = struct{}{}
	return l
}

// Over is closed when there is nothing more to hear, since the program ends.
func (l *Listener) Over() <-chan struct{} { return l.hub.over }

// Close ends listening.
func (l *Listener) Close() {
	l.hub.mu.Lock()
	defer l.hub.mu.Unlock()
	delete(l.hub.listeners[l.session], l)
	if len(l.hub.listeners[l.session]) == 0 {
		delete(l.hub.listeners, l.session)
	}
}

// Run looks for news until ctx ends, and then lets go of who listens. It runs once.
func (h *Hub) Run(ctx context.Context) {
	defer close(h.over)
	told := map[uint64]bool{} // ids of news
	for first := true; ; first = false {
		news, err := h.news(ctx)
		if err != nil && ctx.Err() == nil {
			slog.Error("looking for news", "error", err)
		}
		if err == nil {
			fresh := map[uint64]bool{}
			for id, is := range news {
				if fresh[id] = true; !told[id] && !first {
					h.tell(is)
				}
			}
			told = fresh
		}
		select {
		case <-ctx.Done():
			return
		case <-h.nudged:
		case <-time.After(every):
		}
	}
}

// news looks, where anybody listens.
func (h *Hub) news(ctx context.Context) (map[uint64]planner.News, error) {
	h.mu.Lock()
	nobody := len(h.listeners) == 0
	h.mu.Unlock()
	if nobody {
		return nil, nil
	}
	ctx, cancel := context.WithTimeout(ctx, 5*time.Second)
	defer cancel()
	return h.look(ctx)
}

func (h *Hub) tell(news planner.News) {
	now := time.Now()
	h.mu.Lock()
	defer h.mu.Unlock()
	for l := range h.listeners[news.Session] {
		if news.Staff && !l.staff {
			continue
		}
		select {
		case l.News <- now:
		default: // it has not read the last one yet
		}
	}
}
