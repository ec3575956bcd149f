package books

import (
	"context"
	"sync"

	"cuestart/book"
	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/measure"
	"cuestart/core/say"
	"cuestart/core/sport"
	"cuestart/planner"
)

// Playbook is a club's drill book and sport, as they are after so many changes of
// them. It is shared by all who ask, who change nothing in it.
type Playbook struct {
	edition uint32
	Book    *Book
	Sport   *sport.Sport
	Names   func() *say.Index          // of the book; made when it is first asked for
	own     *planner.Entry[club.Sport] // the club's copy of its sport; nil: it has none
}

// playbooks keeps the playbooks of the clubs that were asked for last.
type playbooks struct {
	mu   sync.Mutex
	kept map[uint64]Playbook // by club
}

// mostPlaybooks is how many are kept: each takes about half a megabyte where a
// club has changed many drills.
const mostPlaybooks = 100

func (k *playbooks) get(clubID uint64, edition uint32) (Playbook, bool) {
	k.mu.Lock()
	defer k.mu.Unlock()
	playbook, ok := k.kept[clubID]
	return playbook, ok && playbook.edition == edition
}

func (k *playbooks) put(clubID uint64, playbook Playbook) {
	k.mu.Lock()
	defer k.mu.Unlock()
	if k.kept == nil || len(k.kept) >= mostPlaybooks {
		k.kept = map[uint64]Playbook{} // whoever is at work fills it again
	}
	k.kept[clubID] = playbook
}

// Playbook returns the club's, worked out anew only where the club has changed
// something in it, on whichever server.
func (bk *Books) Playbook(ctx context.Context, clubID uint64) (playbook Playbook, err error) {
	edition, err := bk.clubs.BookEdition(ctx, clubID)
	if err != nil {
		return playbook, err
	}
	if is, ok := bk.playbooks.get(clubID, edition); ok {
		return is, nil
	}
	drills, err := planner.Entries[club.Drill](ctx, bk.base, clubID)
	if err != nil {
		return playbook, err
	}
	sports, err := planner.Entries[club.Sport](ctx, bk.base, clubID)
	if err != nil {
		return playbook, err
	}
	playbook = Playbook{edition: edition}
	if len(sports) > 0 {
		own := &sports[0].Is.Sport
		if came, ok := book.Sport(own.Key); ok {
			*own = own.Filled(came) // it may be older than what is said of sports now
		}
		playbook.own, playbook.Sport = &sports[0], own
	} else {
		founded, err := bk.clubs.Sport(ctx, clubID)
		if err != nil {
			return playbook, err
		}
		known, ok := book.Sport(founded)
		if !ok {
			known = book.Sports()[0]
		}
		playbook.Sport = &known
	}
	playbook.Book = NewBook(inUnits(book.Drills(), playbook.Sport.System), drills)
	playbook.Names = sync.OnceValue(func() *say.Index { return say.NewIndex(playbook.Book.Drills, playbook.Sport.Key) })
	bk.playbooks.put(clubID, playbook)
	return playbook, nil
}

// inUnits are drills said in the units of a club.
func inUnits(drills []drill.Drill, s measure.System) []drill.Drill {
	if s.Unit() == "m" {
		return drills
	}
	said := make([]drill.Drill, len(drills))
	for i, d := range drills {
		said[i] = d.In(s)
	}
	return said
}

// Book returns the club's drill book, which is not to be changed.
func (bk *Books) Book(ctx context.Context, clubID uint64) (*Book, error) {
	playbook, err := bk.Playbook(ctx, clubID)
	return playbook.Book, err
}

// Sport returns the club's sport, which is not to be changed: its copy, or the
// one that comes with Cue Start; the first of these where the club plays none
// that is known.
func (bk *Books) Sport(ctx context.Context, clubID uint64) (*sport.Sport, error) {
	playbook, err := bk.Playbook(ctx, clubID)
	return playbook.Sport, err
}

// OwnSport is the club's own copy of its sport; nil where it has none.
func (bk *Books) OwnSport(ctx context.Context, clubID uint64) (*planner.Entry[club.Sport], error) {
	playbook, err := bk.Playbook(ctx, clubID)
	return playbook.own, err
}
