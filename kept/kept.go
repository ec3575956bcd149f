// Package kept keeps what is read often and seldom changes, for a while; what many ask
// for at once is read once.
package kept

import (
	"context"
	"fmt"
	"sync"
	"time"

	"golang.org/x/sync/singleflight"
)

// Cache keeps values by their keys. Its zero value is empty and ready.
type Cache[K comparable, V any] struct {
	mu    sync.Mutex
	is    map[K]one[V]
	asked singleflight.Group
}

type one[V any] struct {
	is    V
	began time.Time // when reading it began
}

// How many a cache keeps, and for how long: that a person was forgotten, on whichever
// server, holds everywhere within that time.
const (
	most = 300
	For  = time.Minute
)

// readWithin is how long a reading may take, whoever still waits for it.
const readWithin = 30 * time.Second

// Get returns what was read within the last minute, or reads it.
func (k *Cache[K, V]) Get(ctx context.Context, key K, read func(context.Context) (V, error)) (V, error) {
	return k.Since(ctx, key, time.Now().Add(-For), read)
}

// Since returns what was read after a moment, or reads it. Read gets a context of its own: who
// asked first and has gone away takes the answer from nobody else. It fails with the error of
// the context of who asks, and of read.
func (k *Cache[K, V]) Since(ctx context.Context, key K, after time.Time,
	read func(context.Context) (V, error)) (none V, err error) {
	if found, ok := k.after(key, after); ok {
		return found.is, nil
	}
	coming := k.asked.DoChan(fmt.Sprint(key), func() (any, error) {
		if found, ok := k.after(key, after); ok { // it came between the look and the question
			return found, nil
		}
		own, cancel := context.WithTimeout(context.WithoutCancel(ctx), readWithin)
		defer cancel()
		is := one[V]{began: time.Now()}
		var err error
		if is.is, err = read(own); err == nil {
			k.put(key, is)
		}
		return is, err
	})
	select {
	case <-ctx.Done():
		return none, ctx.Err()
	case answer := <-coming:
		if answer.Err != nil {
			return none, answer.Err
		}
		if is := answer.Val.(one[V]); is.began.After(after) {
			return is.is, nil
		}
	}
	return k.Since(ctx, key, after, read) // it was on its way before
}

// after is what was read of a key after a moment, if anything was.
func (k *Cache[K, V]) after(key K, moment time.Time) (found one[V], ok bool) {
	k.mu.Lock()
	defer k.mu.Unlock()
	found, ok = k.is[key]
	return found, ok && found.began.After(moment)
}

func (k *Cache[K, V]) put(key K, is one[V]) {
	k.mu.Lock()
	defer k.mu.Unlock()
	if k.is == nil || len(k.is) >= most {
		k.is = map[K]one[V]{} // whoever is at work fills it again
	}
	k.is[key] = is
}

// Clear forgets everything.
func (k *Cache[K, V]) Clear() {
	k.mu.Lock()
	defer k.mu.Unlock()
	k.is = nil
}
