package planner

import (
	"fmt"
	"sync"
	"time"

	"golang.org/x/sync/singleflight"
)

// kept keeps what is read often and seldom changes, for a while; it is read once
// however many ask at once.
type kept[K comparable, V any] struct {
	mu    sync.Mutex
	is    map[K]keptOne[V]
	asked singleflight.Group
}

type keptOne[V any] struct {
	is    V
	began time.Time // when reading it began
}

// How many are kept, and for how long: that a person was forgotten, on whichever
// server, holds everywhere within that time.
const (
	mostKept = 300
	keptFor  = time.Minute
)

// get returns what was read within the last minute, or reads it.
func (k *kept[K, V]) get(key K, read func() (V, error)) (V, error) {
	return k.since(key, time.Now().Add(-keptFor), read)
}

// since returns what was read after a moment, or reads it.
func (k *kept[K, V]) since(key K, after time.Time, read func() (V, error)) (V, error) {
	k.mu.Lock()
	one, ok := k.is[key]
	k.mu.Unlock()
	if ok && one.began.After(after) {
		return one.is, nil
	}
	found, err, _ := k.asked.Do(fmt.Sprint(key), func() (any, error) {
		one := keptOne[V]{began: time.Now()}
		var err error
		if one.is, err = read(); err == nil {
			k.put(key, one)
		}
		return one, err
	})
	if err != nil {
		var none V
		return none, err
	}
	if one := found.(keptOne[V]); one.began.After(after) {
		return one.is, nil
	}
	return k.since(key, after, read) // it was on its way before
}

func (k *kept[K, V]) put(key K, one keptOne[V]) {
	k.mu.Lock()
	defer k.mu.Unlock()
	if k.is == nil || len(k.is) >= mostKept {
		k.is = map[K]keptOne[V]{} // whoever is at work fills it again
	}
	k.is[key] = one
}

// clear forgets everything.
func (k *kept[K, V]) clear() {
	k.mu.Lock()
	defer k.mu.Unlock()
	k.is = nil
}
