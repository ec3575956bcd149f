package reach

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"maps"
	"slices"
	"strconv"
	"strings"
	"sync"
	"time"
	"unicode/utf8"

	"cuestart/core/plan"
	"cuestart/kept"
	"cuestart/planner"
	"cuestart/planner/boards"
	"cuestart/store"
)

// Longest texts that a phone may send, and how far off its own time may be.
const (
	mostSays  = 400
	mostOnce  = 64
	pressedIn = 48 * time.Hour
)

// eases is of whom a leader says that they need an easier form, and who says so; "" where it is
// nobody who does that.
func eases(from *Shared, w planner.Word) (person, says string) {
	block := from.Document.Block(w.Block)
	if block == nil || w.Item < 0 || w.Item >= len(block.Items) ||
		!slices.Contains(from.Document.Members(block.Who), w.Says) {
		return "", ""
	}
	return w.Says, from.Leader().Name
}

// sayable is of whom a word is, which says what can be said from there.
func sayable(from *Shared, w *planner.Word) (person string, err error) {
	if from.Person == "" || w.Once == "" || len(w.Once) > mostOnce || !plain(w.Once) ||
		!utf8.ValidString(w.Says+w.Block) || len(w.Says) > mostSays || len(w.Block) > 80 ||
		!slices.Contains([]string{planner.Late, planner.Easier, planner.Sore, planner.Pain, planner.Grid,
			planner.Missing, planner.Choice, planner.Effort}, w.Kind) {
		return "", plan.In("word", "That cannot be said from here.")
	}
	leads := from.Leader() != nil
	if ofLeaders := w.Kind == planner.Grid || w.Kind == planner.Missing ||
		w.Kind == planner.Easier && leads; ofLeaders != leads {
		return "", plan.In("word", "That cannot be said from here.")
	}
	if _, err := time.Parse("15:04", w.Says); w.Kind == planner.Late && err != nil {
		return "", plan.In("word", "Say a time on the clock, such as 14:05.")
	}
	if n, err := strconv.Atoi(w.Says); w.Kind == planner.Effort && (err != nil || n < 0 || n > 10) {
		return "", plan.In("word", "Say how hard it was, from 0 to 10.")
	}
	if block := from.Document.Block(w.Block); w.Kind == planner.Grid &&
		(block == nil || w.Item < 0 || w.Item >= len(block.Items)) {
		return "", plan.In("word", "That is not in the plan any more.")
	}
	w.Says, person = strings.Join(strings.Fields(w.Says), " "), from.Person
	if w.Kind == planner.Easier && !leads {
		w.Says = "" // nobody says it for them
	} else if w.Kind == planner.Easier {
		if person, w.Says = eases(from, *w); person == "" {
			return "", plan.In("word", "That is not in the plan any more.")
		}
	}
	return person, nil
}

// Tell keeps what whom a link is for says from a phone, once however often it is sent.
// It fails with [plan.Problems] where it is none of the things that can be said.
func (rc *Reach) Tell(ctx context.Context, from *Shared, w planner.Word) error {
	now := rc.base.Now()
	person, err := sayable(from, &w)
	if err != nil {
		return err
	}
	if w.Person, w.Own, w.Made = person, from.Own, now.UTC(); w.Pressed.After(now) || now.Sub(w.Pressed) > pressedIn {
		w.Pressed = now
	}
	w.Pressed = w.Pressed.UTC()
	if w.Kind == planner.Choice && chosen(from.Document, w) < 0 {
		return plan.In("word", "That cannot be chosen any more.")
	}
	if w.Kind == planner.Pain {
		player := from.Document.Player(w.Person)
		err = rc.people.AddHurt(ctx, from.Session, store.Hurt{Person: w.Person, Roster: player.Roster,
			Name: player.Label(), Once: w.Once, Kind: store.HurtPain, Says: withDrill(from.Document, w), Own: w.Own,
			Pressed: w.Pressed, Made: w.Made})
	} else {
		err = rc.shares.AddWord(ctx, from.Session, w)
	}
	switch {
	case errors.Is(err, planner.ErrMany) && w.Own:
		return plan.In("word", "That was said very often already. Tell your coach in person.")
	case errors.Is(err, planner.ErrMany):
		return plan.In("word",
			"That was said very often already by the team's link. Use your own link, or tell your coach in person.")
	case err != nil:
		return err
	}
	rc.base.Tell()
	return nil
}

// withDrill is what a word says, with the drill that it is about.
func withDrill(d *plan.Document, w planner.Word) string {
	if block := d.Block(w.Block); block != nil && w.Item >= 0 && w.Item < len(block.Items) {
		return strings.TrimPrefix(w.Says+", at "+block.Items[w.Item].Drill.Name, ", ")
	}
	return w.Says
}

// plain tells whether a text is letters, figures and marks that any name of a press may hold.
func plain(text string) bool {
	return !strings.ContainsFunc(text, func(r rune) bool { return r < ' ' || r > '~' })
}

// seenWithin is how long it may take until it is kept that somebody has opened a
// publication: those of a crowd are kept together.
const seenWithin = 300 * time.Millisecond

// readers are who has opened what and is to be kept.
type readers struct {
	mu    sync.Mutex
	wait  map[store.Numbered]map[string]planner.Seen
	known kept.Cache[string, bool] // kept already
}

// onlyOpened is a publication that was opened and not answered.
const onlyOpened = false

// Opened keeps that whom a link is for has a publication open; with answered that they
// say so.
func (rc *Reach) Opened(ctx context.Context, from *Shared, number int, answered bool) error {
	if from.Person == "" || number < 1 || number > from.Number {
		return nil
	}
	seen := planner.Seen{Person: from.Person, Number: number, Own: from.Own, At: rc.base.Now().UTC()}
	if answered {
		return rc.shares.SetSeen(ctx, from.Session, []planner.Seen{seen}, answered)
	}
	rc.readers.known.Get(ctx, fmt.Sprint(from.Session, seen.Person, number, seen.Own),
		func(context.Context) (bool, error) {
			rc.note(store.Numbered{Session: from.Session, Number: number}, seen)
			return true, nil
		})
	return nil
}

// note has it kept soon, with what else comes until then.
func (rc *Reach) note(of store.Numbered, seen planner.Seen) {
	r := &rc.readers
	r.mu.Lock()
	defer r.mu.Unlock()
	if r.wait == nil {
		r.wait = map[store.Numbered]map[string]planner.Seen{}
		time.AfterFunc(seenWithin, rc.keepReaders)
	}
	if r.wait[of] == nil {
		r.wait[of] = map[string]planner.Seen{}
	}
	r.wait[of][fmt.Sprint(seen.Person, seen.Own)] = seen
}

func (rc *Reach) keepReaders() {
	rc.readers.mu.Lock()
	wait := rc.readers.wait
	rc.readers.wait = nil
	rc.readers.mu.Unlock()
	ctx, cancel := context.WithTimeout(context.Background(), 30*time.Second)
	defer cancel()
	for of, all := range wait {
		if err := rc.shares.SetSeen(ctx, of.Session, slices.Collect(maps.Values(all)), onlyOpened); err != nil {
			slog.Error("who has opened a plan is not kept", "error", err)
		}
	}
}

// Ticks are those of a leader's grids.
func (rc *Reach) Ticks(ctx context.Context, from *Shared) ([]planner.Word, error) {
	return rc.shares.Ticks(ctx, from.Session, from.Person)
}

// Told is a word as the board shows it.
type Told struct {
	planner.Word
	Name string // of whom it is about
	Says string // a sentence, to whom it may be told
	Plan string // what one press plans of it; "": nothing
}

// Told lists what was said about a session from phones and not taken in yet, as far as
// an account may know of it. Who is hurt is told by [keep.Keep.HurtIn].
func (rc *Reach) Told(ctx context.Context, by planner.Account, b *boards.Board) (list []Told, err error) {
	if err := planner.May(by, planner.ToSee); err != nil {
		return nil, err
	}
	words, err := rc.shares.Words(ctx, b.ID)
	latest := map[string]uint64{} // by person and door: what they said last of being late
	for _, w := range words {
		if w.Kind == planner.Late {
			latest[fmt.Sprint(w.Person, w.Own)] = w.ID
		}
	}
	for _, w := range words {
		if w.Kind == planner.Late && latest[fmt.Sprint(w.Person, w.Own)] != w.ID {
			continue
		}
		whom := w.Person
		if w.Kind == planner.Missing {
			whom = w.Says
		}
		if player := b.Document.Player(whom); player != nil && w.Noted.IsZero() && w.Kind != planner.Effort {
			list = append(list, told(b, player, w))
		}
	}
	return list, err
}

// Away are the players who say that they are late, by id with the time that they will be
// there, and those whom a leader misses, with "".
func (rc *Reach) Away(ctx context.Context, s *Shared) (map[string]string, error) {
	words, err := rc.shares.Words(ctx, s.Session)
	away := map[string]string{}
	for _, w := range words {
		switch {
		case w.Kind == planner.Late:
			away[w.Person] = w.Says
		case w.Kind == planner.Missing && w.Noted.IsZero():
			away[w.Says] = ""
		}
	}
	return away, err
}

// Tight is what players say is tight before a session, by id.
func (rc *Reach) Tight(ctx context.Context, s *Shared) (map[string][]string, error) {
	words, err := rc.shares.Words(ctx, s.Session)
	tight := map[string][]string{}
	for _, w := range words {
		if w.Kind == planner.Sore && !slices.Contains(tight[w.Person], w.Says) {
			tight[w.Person] = append(tight[w.Person], w.Says)
		}
	}
	return tight, err
}

func told(b *boards.Board, player *plan.Player, w planner.Word) Told {
	h := Told{Word: w, Name: player.ShortName()}
	drill := ""
	if block := b.Document.Block(w.Block); block != nil && w.Item < len(block.Items) {
		drill = block.Items[w.Item].Drill.Name
	}
	switch w.Kind {
	case planner.Missing:
		h.Says = "is missed"
		if leader := b.Document.Leader(strings.TrimPrefix(w.Person, LeaderMark)); leader != nil {
			h.Says = leader.Name + " misses them"
			if block := b.Document.Block(w.Block); block != nil {
				h.Says += " at " + block.Name
			}
		}
	case planner.Late:
		h.Plan = "Plan it: there at " + w.Says
		h.Says = "will be there at " + w.Says
	case planner.Choice:
		if h.Says = "would do " + w.Says; chosen(b.Document, w) >= 0 {
			h.Plan = "Plan it so"
			h.Says += " at " + b.Document.Block(w.Block).Name
		}
	case planner.Easier:
		if h.Says = fmt.Sprintf("does not feel %s: wants an easier form", drill); w.Says != "" {
			h.Says = fmt.Sprintf("needs an easier form of %s, says %s", drill, w.Says)
		}
		if block := b.Document.Block(w.Block); drill != "" && player.Forms[block.Items[w.Item].Drill.Code] == "" {
			if easier, ok := b.Book.Easier(block.Items[w.Item].Drill); ok {
				h.Plan = "From now on: " + easier.Name
			}
		}
	case planner.Sore:
		h.Says = "tight: " + w.Says
	}
	if drill != "" && w.Kind == planner.Sore {
		h.Says += ", at " + drill
	}
	return h
}

// TakeIn notes a word as taken in. With plan, who is late is planned to be there when
// they say. It fails with ErrNotFound, with ErrForbidden, and as [boards.Boards.Change] does.
func (rc *Reach) TakeIn(ctx context.Context, by planner.Account, session, word uint64, plans bool) error {
	if err := planner.May(by, planner.ToPlan); err != nil {
		return err
	}
	b, err := rc.sessions.Session(ctx, by.ClubID, session)
	if err != nil {
		return err
	}
	words, err := rc.shares.Words(ctx, b.ID)
	if err != nil {
		return err
	}
	i := slices.IndexFunc(words, func(w planner.Word) bool { return w.ID == word })
	if i < 0 {
		return planner.ErrNotFound
	}
	w := words[i]
	if plans {
		if err := rc.planWord(ctx, by, b, w); err != nil {
			return err
		}
	}
	defer rc.base.Tell()
	return rc.shares.NoteWord(ctx, b.ID, word, rc.base.Now().UTC())
}

// planWord plans what a word says: who is late is there when they say, who chooses
// does that, who wants an easier form does it from now on.
func (rc *Reach) planWord(ctx context.Context, by planner.Account, b *store.Session, w planner.Word) (err error) {
	switch w.Kind {
	case planner.Late:
		_, err = rc.boards.Change(ctx, by, b.ID, b.Revision,
			func(d *plan.Document) (string, error) { return d.SetArrival(w.Person, w.Says) })
	case planner.Easier:
		_, err = rc.boards.PutForm(ctx, by, b.ID, b.Revision, w.Block, w.Item, w.Person, plan.Easier)
	case planner.Choice:
		_, err = rc.boards.Change(ctx, by, b.ID, b.Revision,
			func(d *plan.Document) (string, error) { return d.Choose(w.Block, w.Person, chosen(d, w)) })
	}
	return err
}

// chosen is the drill of a block by choice that a word names; -1: there is none that its
// player may choose.
func chosen(d *plan.Document, w planner.Word) int {
	b := d.Block(w.Block)
	if b == nil || b.Form != plan.ByChoice || !slices.Contains(d.Members(b.Who), w.Person) {
		return -1
	}
	return slices.IndexFunc(b.Items, func(i plan.Item) bool { return i.Drill.Name == w.Says })
}

// Reader is somebody to whom a session is published, and what of it they have opened.
type Reader struct {
	Person, Name string
	Leader       bool
	Number       int // the newest publication that they have opened; 0: none
	At, Answered time.Time
	Own          bool // by their own link
}

// Readers lists to whom a session is published, and what of it each has opened.
func (rc *Reach) Readers(ctx context.Context, b *boards.Board) (list []Reader, err error) {
	seen, err := rc.shares.SeenBy(ctx, b.ID)
	if err != nil {
		return nil, err
	}
	for _, player := range b.Document.Players {
		list = append(list, Reader{Person: player.ID, Name: player.Label()})
	}
	for _, leader := range b.Document.Leaders {
		list = append(list, Reader{Person: LeaderMark + leader.ID, Name: leader.Name, Leader: true})
	}
	for _, s := range seen { // in the order of publications
		if i := slices.IndexFunc(list, func(r Reader) bool { return r.Person == s.Person }); i >= 0 {
			r := &list[i]
			r.Number, r.At, r.Answered, r.Own = s.Number, s.At, s.Answered, s.Own
		}
	}
	return list, nil
}
