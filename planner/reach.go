package planner

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
	"cuestart/store"
)

// What people say from their phones, as the store keeps it.
type (
	// Word is what somebody says from their phone.
	Word = store.Word
	// Seen is who has opened which publication.
	Seen = store.Seen
)

// Kinds of a word.
const (
	Late   = store.WordLate
	Easier = store.WordEasier
	Sore   = store.WordSore
	Pain   = "pain" // for medical staff alone: see [Planner.Hurt]
	Grid   = store.WordGrid

	Missing = store.WordMissing
	Choice  = store.WordChoice
	Effort  = store.WordEffort
)

// Longest texts that a phone may send, and how far off its own time may be.
const (
	mostSays  = 400
	mostOnce  = 64
	pressedIn = 48 * time.Hour
)

// eases is of whom a leader says that they need an easier form, and who says so; "" where it is
// nobody who does that.
func eases(from *Shared, w Word) (person, says string) {
	block := from.Document.Block(w.Block)
	if block == nil || w.Item < 0 || w.Item >= len(block.Items) || !slices.Contains(from.Document.Members(block.Who), w.Says) {
		return "", ""
	}
	return w.Says, from.Leader().Name
}

// sayable is of whom a word is, which says what can be said from there.
func sayable(from *Shared, w *Word) (person string, err error) {
	if from.Person == "" || w.Once == "" || len(w.Once) > mostOnce || !plain(w.Once) || !utf8.ValidString(w.Says+w.Block) || len(w.Says) > mostSays || len(w.Block) > 80 ||
		!slices.Contains([]string{Late, Easier, Sore, Pain, Grid, Missing, Choice, Effort}, w.Kind) {
		return "", plan.In("word", "That cannot be said from here.")
	}
	leads := from.Leader() != nil
	if ofLeaders := w.Kind == Grid || w.Kind == Missing || w.Kind == Easier && leads; ofLeaders != leads {
		return "", plan.In("word", "That cannot be said from here.")
	}
	if _, err := time.Parse("15:04", w.Says); w.Kind == Late && err != nil {
		return "", plan.In("word", "Say a time on the clock, such as 14:05.")
	}
	if n, err := strconv.Atoi(w.Says); w.Kind == Effort && (err != nil || n < 0 || n > 10) {
		return "", plan.In("word", "Say how hard it was, from 0 to 10.")
	}
	if block := from.Document.Block(w.Block); w.Kind == Grid && (block == nil || w.Item < 0 || w.Item >= len(block.Items)) {
		return "", plan.In("word", "That is not in the plan any more.")
	}
	w.Says, person = strings.Join(strings.Fields(w.Says), " "), from.Person
	if w.Kind == Easier && !leads {
		w.Says = "" // nobody says it for them
	} else if w.Kind == Easier {
		if person, w.Says = eases(from, *w); person == "" {
			return "", plan.In("word", "That is not in the plan any more.")
		}
	}
	return person, nil
}

// Tell keeps what whom a link is for says from a phone, once however often it is sent.
// It fails with [plan.Problems] where it is none of the things that can be said.
func (p *Planner) Tell(ctx context.Context, from *Shared, w Word) error {
	now := p.Now()
	person, err := sayable(from, &w)
	if err != nil {
		return err
	}
	if w.Person, w.Own, w.Made = person, from.Own, now.UTC(); w.Pressed.After(now) || now.Sub(w.Pressed) > pressedIn {
		w.Pressed = now
	}
	w.Pressed = w.Pressed.UTC()
	if w.Kind == Choice && chosen(from.Document, w) < 0 {
		return plan.In("word", "That cannot be chosen any more.")
	}
	if w.Kind == Pain {
		player := from.Document.Player(w.Person)
		err = p.store.AddHurt(ctx, from.Session, store.Hurt{Person: w.Person, Roster: player.Roster, Name: player.Label(), Once: w.Once, Kind: store.HurtPain, Says: withDrill(from.Document, w), Own: w.Own,
			Pressed: w.Pressed, Made: w.Made})
	} else {
		err = p.store.AddWord(ctx, from.Session, w)
	}
	switch {
	case errors.Is(err, ErrMany) && w.Own:
		return plan.In("word", "That was said very often already. Tell your coach in person.")
	case errors.Is(err, ErrMany):
		return plan.In("word", "That was said very often already by the team's link. Use your own link, or tell your coach in person.")
	case err != nil:
		return err
	}
	p.nudge()
	return nil
}

// withDrill is what a word says, with the drill that it is about.
func withDrill(d *plan.Document, w Word) string {
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
	wait  map[store.Numbered]map[string]Seen
	known kept.Cache[string, bool] // kept already
}

// Opened keeps that whom a link is for has a publication open; with answered that they
// say so.
func (p *Planner) Opened(ctx context.Context, from *Shared, number int, answered bool) error {
	if from.Person == "" || number < 1 || number > from.Number {
		return nil
	}
	is := Seen{Person: from.Person, Number: number, Own: from.Own, At: p.Now().UTC()}
	if answered {
		return p.store.SetSeen(ctx, from.Session, []Seen{is}, true)
	}
	p.readers.known.Get(ctx, fmt.Sprint(from.Session, is.Person, number, is.Own), func(context.Context) (bool, error) {
		p.note(store.Numbered{Session: from.Session, Number: number}, is)
		return true, nil
	})
	return nil
}

// note has it kept soon, with what else comes until then.
func (p *Planner) note(of store.Numbered, is Seen) {
	r := &p.readers
	r.mu.Lock()
	defer r.mu.Unlock()
	if r.wait == nil {
		r.wait = map[store.Numbered]map[string]Seen{}
		time.AfterFunc(seenWithin, p.keepReaders)
	}
	if r.wait[of] == nil {
		r.wait[of] = map[string]Seen{}
	}
	r.wait[of][fmt.Sprint(is.Person, is.Own)] = is
}

func (p *Planner) keepReaders() {
	p.readers.mu.Lock()
	wait := p.readers.wait
	p.readers.wait = nil
	p.readers.mu.Unlock()
	ctx, cancel := context.WithTimeout(context.Background(), 30*time.Second)
	defer cancel()
	for of, all := range wait {
		if err := p.store.SetSeen(ctx, of.Session, slices.Collect(maps.Values(all)), false); err != nil {
			slog.Error("who has opened a plan is not kept", "error", err)
		}
	}
}

// Ticks are those of a leader's grids.
func (p *Planner) Ticks(ctx context.Context, from *Shared) ([]Word, error) {
	return p.store.Ticks(ctx, from.Session, from.Person)
}

// Told is a word as the board shows it.
type Told struct {
	Word
	Name string // of whom it is about
	Says string // a sentence, to whom it may be told
	Plan string // what one press plans of it; "": nothing
}

// Told lists what was said about a session from phones and not taken in yet, as far as
// an account may know of it. Who is hurt is told by [Planner.HurtIn].
func (p *Planner) Told(ctx context.Context, by Account, b *Board) (list []Told, err error) {
	if err := May(by, ToSee); err != nil {
		return nil, err
	}
	words, err := p.store.Words(ctx, b.ID)
	latest := map[string]uint64{} // by person and door: what they said last of being late
	for _, w := range words {
		if w.Kind == Late {
			latest[fmt.Sprint(w.Person, w.Own)] = w.ID
		}
	}
	for _, w := range words {
		if w.Kind == Late && latest[fmt.Sprint(w.Person, w.Own)] != w.ID {
			continue
		}
		whom := w.Person
		if w.Kind == Missing {
			whom = w.Says
		}
		if player := b.Document.Player(whom); player != nil && w.Noted.IsZero() && w.Kind != Effort {
			list = append(list, told(b, player, w))
		}
	}
	return list, err
}

// Away are the players who say that they are late, by id with the time that they will be
// there, and those whom a leader misses, with "".
func (p *Planner) Away(ctx context.Context, s *Shared) (map[string]string, error) {
	words, err := p.store.Words(ctx, s.Session)
	away := map[string]string{}
	for _, w := range words {
		switch {
		case w.Kind == Late:
			away[w.Person] = w.Says
		case w.Kind == Missing && w.Noted.IsZero():
			away[w.Says] = ""
		}
	}
	return away, err
}

// Tight is what players say is tight before a session, by id.
func (p *Planner) Tight(ctx context.Context, s *Shared) (map[string][]string, error) {
	words, err := p.store.Words(ctx, s.Session)
	tight := map[string][]string{}
	for _, w := range words {
		if w.Kind == Sore && !slices.Contains(tight[w.Person], w.Says) {
			tight[w.Person] = append(tight[w.Person], w.Says)
		}
	}
	return tight, err
}

func told(b *Board, player *plan.Player, w Word) Told {
	h := Told{Word: w, Name: player.ShortName()}
	drill := ""
	if block := b.Document.Block(w.Block); block != nil && w.Item < len(block.Items) {
		drill = block.Items[w.Item].Drill.Name
	}
	switch w.Kind {
	case Missing:
		h.Says = "is missed"
		if leader := b.Document.Leader(strings.TrimPrefix(w.Person, LeaderMark)); leader != nil {
			h.Says = leader.Name + " misses them"
			if block := b.Document.Block(w.Block); block != nil {
				h.Says += " at " + block.Name
			}
		}
	case Late:
		h.Plan = "Plan it: there at " + w.Says
		h.Says = "will be there at " + w.Says
	case Choice:
		if h.Says = "would do " + w.Says; chosen(b.Document, w) >= 0 {
			h.Plan = "Plan it so"
			h.Says += " at " + b.Document.Block(w.Block).Name
		}
	case Easier:
		if h.Says = fmt.Sprintf("does not feel %s: wants an easier form", drill); w.Says != "" {
			h.Says = fmt.Sprintf("needs an easier form of %s, says %s", drill, w.Says)
		}
		if block := b.Document.Block(w.Block); drill != "" && player.Forms[block.Items[w.Item].Drill.Code] == "" {
			if easier, ok := b.book.Easier(block.Items[w.Item].Drill); ok {
				h.Plan = "From now on: " + easier.Name
			}
		}
	case Sore:
		h.Says = "tight: " + w.Says
	}
	if drill != "" && w.Kind == Sore {
		h.Says += ", at " + drill
	}
	return h
}

// TakeIn notes a word as taken in. With plan, who is late is planned to be there when
// they say. It fails with ErrNotFound, with ErrForbidden, and as [Planner.Change] does.
func (p *Planner) TakeIn(ctx context.Context, by Account, session, word uint64, plans bool) error {
	if err := May(by, ToPlan); err != nil {
		return err
	}
	b, err := p.store.Session(ctx, by.ClubID, session)
	if err != nil {
		return err
	}
	words, err := p.store.Words(ctx, b.ID)
	if err != nil {
		return err
	}
	i := slices.IndexFunc(words, func(w Word) bool { return w.ID == word })
	if i < 0 {
		return ErrNotFound
	}
	w := words[i]
	if plans {
		if err := p.planWord(ctx, by, b, w); err != nil {
			return err
		}
	}
	defer p.nudge()
	return p.store.NoteWord(ctx, b.ID, word, p.Now().UTC())
}

// planWord plans what a word says: who is late is there when they say, who chooses
// does that, who wants an easier form does it from now on.
func (p *Planner) planWord(ctx context.Context, by Account, b *store.Session, w Word) (err error) {
	switch w.Kind {
	case Late:
		_, err = p.Change(ctx, by, b.ID, b.Revision, func(d *plan.Document) (string, error) { return d.SetArrival(w.Person, w.Says) })
	case Easier:
		_, err = p.PutForm(ctx, by, b.ID, b.Revision, w.Block, w.Item, w.Person, plan.Easier)
	case Choice:
		_, err = p.Change(ctx, by, b.ID, b.Revision, func(d *plan.Document) (string, error) { return d.Choose(w.Block, w.Person, chosen(d, w)) })
	}
	return err
}

// chosen is the drill of a block by choice that a word names; -1: there is none that its
// player may choose.
func chosen(d *plan.Document, w Word) int {
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
func (p *Planner) Readers(ctx context.Context, b *Board) (list []Reader, err error) {
	seen, err := p.store.SeenBy(ctx, b.ID)
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
