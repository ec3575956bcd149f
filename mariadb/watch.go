package mariadb

import (
	"errors"
	"log/slog"
	"time"
)

// How a server is started again that ends by itself: at once, and later and later where
// it does not stay up; it is given up when it has not for some minutes.
const (
	staysUp  = time.Minute
	mostWait = 20 * time.Second
)

var givenUpIn = 5 * time.Minute // a variable for the tests

// watch starts a server again that ends by itself.
func (s *Server) watch(exited chan struct{}) {
	defer close(s.done)
	up, failing, wait := time.Now(), time.Time{}, time.Duration(0)
	for {
		<-exited
		if s.ends() {
			return
		}
		if time.Since(up) > staysUp {
			failing, wait = time.Time{}, 0
		}
		if failing.IsZero() {
			failing = time.Now()
		}
		slog.Warn("the database ended unexpectedly and is started again", "in", wait, "log", s.errorLog())
		next, err := s.again(wait, time.Since(failing))
		if err != nil {
			slog.Error("the database is given up", "error", err, "log", s.errorLog())
			return
		}
		exited, up = next, time.Now()
		wait = min(mostWait, max(250*time.Millisecond, 2*wait))
	}
}

// again starts the server after a while. It fails where it has not stayed up for too
// long, or is to end.
func (s *Server) again(wait, failing time.Duration) (exited chan struct{}, err error) {
	for {
		for until := time.Now().Add(wait); time.Now().Before(until) && !s.ends(); {
			time.Sleep(50 * time.Millisecond)
		}
		if s.ends() {
			return nil, errors.New("it was to end")
		}
		if failing > givenUpIn {
			return nil, errors.New("it does not stay up")
		}
		if exited, err = s.spawn(); err == nil {
			return exited, nil
		}
		wait = min(mostWait, max(250*time.Millisecond, 2*wait))
		failing += wait
	}
}

// ends tells whether the server is to end.
func (s *Server) ends() bool {
	s.mu.Lock()
	defer s.mu.Unlock()
	return s.stopping
}
