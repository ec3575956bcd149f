package reach

import (
	"context"
	"crypto/hmac"
	"crypto/sha256"
	"encoding/base64"
	"errors"
	"fmt"
	"slices"
	"strings"
	"time"

	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/core/today"
	"cuestart/kept"
	"cuestart/planner"
	"cuestart/planner/boards"
	"cuestart/planner/books"
	"cuestart/planner/keep"
	"cuestart/store"
)

// Shared is what a link shows to one person, or to everybody.
type Shared struct {
	*store.Link
	At       time.Time // when it was published
	Document *plan.Document
	Schedule *schedule.Schedule
	Person   string // id of the player, or of the leader after [LeaderMark]; "": everybody
	Own      bool   // by their own link
}

// LeaderMark stands before the id of a leader where a person is named.
const LeaderMark = "l-"

// Leader is who the link is for; nil where that is no leader.
func (s *Shared) Leader() *plan.Leader {
	if id, ok := strings.CutPrefix(s.Person, LeaderMark); ok {
		return s.Document.Leader(id)
	}
	return nil
}

// Way is how somebody comes to what is shared: by the team's link, by a person picked
// there, or with a key by a person's own link.
type Way struct {
	Token, Person, Key string
	CalledOff          bool // also to a session that was called off: for calendars
}

// Shared returns what a link shows: to everybody, and to a person whom whoever holds the
// team's link picked, the plan as it is for who has no ruling; by their own link, with
// what medical staff have ruled for that player, as it is now, and to a leader with
// whom to spare what. It fails with ErrNotFound where the way is not good, or no more.
func (rc *Reach) Shared(ctx context.Context, way Way) (*Shared, error) {
	return rc.SharedSince(ctx, way, time.Now())
}

// SharedSince is Shared as it was at some time after a moment, so that the many who ask
// after the same moment are answered by the same few reads.
func (rc *Reach) SharedSince(ctx context.Context, way Way, after time.Time) (*Shared, error) {
	link, err := rc.links.Since(ctx, way.Token, after, func(ctx context.Context) (*store.Link, error) {
		return rc.shares.Link(ctx, way.Token, rc.base.Now())
	})
	if err == nil && link.Removed && !way.CalledOff {
		err = planner.ErrNotFound
	}
	if err != nil {
		return nil, err
	}
	found, err := rc.shared(ctx, link, link.Number)
	if err != nil {
		return nil, err
	}
	found.Person, found.Own = way.Person, way.Key != ""
	if way.Person == "" {
		return found, nil
	}
	player := found.Document.Player(way.Person)
	if player == nil && (!found.Own || found.Leader() == nil) || player != nil && player.First == store.FormerPlayer {
		return nil, planner.ErrNotFound
	}
	if !found.Own {
		return found, nil
	}
	turns, err := rc.turns.Since(ctx, way.Token, after, func(ctx context.Context) (map[string]store.Turn, error) {
		return rc.shares.Turns(ctx, way.Token)
	})
	if err != nil {
		return nil, err
	}
	turn := turns[way.Person]
	if turn.Withdrawn || !hmac.Equal([]byte(way.Key), []byte(ownKey(found.Secret, way.Person, turn))) {
		return nil, planner.ErrNotFound
	}
	return found, rc.rule(ctx, found, after)
}

// shared is publication number of what a link leads to, without rulings.
func (rc *Reach) shared(ctx context.Context, link *store.Link, number int) (*Shared, error) {
	found, err := rc.edition(ctx, link.Session, number)
	if err != nil {
		return nil, err
	}
	at := *link
	at.Number = number
	d := *found.Document
	d.Restrictions = nil
	return &Shared{Link: &at, At: found.At, Document: &d, Schedule: found.Schedule}, nil
}

// Before is the same as an earlier publication had it, or nil where that is no longer
// kept.
func (rc *Reach) Before(ctx context.Context, now *Shared, number int) (*Shared, error) {
	was, err := rc.shared(ctx, now.Link, number)
	if errors.Is(err, planner.ErrNotFound) {
		return nil, nil
	} else if err != nil {
		return nil, err
	}
	if was.Person, was.Own = now.Person, now.Own; now.Own {
		err = rc.rule(ctx, was, time.Now().Add(-kept.For))
	}
	return was, err
}

// feedBack is how long a calendar keeps sessions that are over.
const feedBack = 60 * 24 * time.Hour

// Feed is what a link shows of each session that it is for: of one, or for a season of
// all that the squad has or had of late, those called off among them.
func (rc *Reach) Feed(ctx context.Context, way Way) (list []*Shared, err error) {
	way.CalledOff = true
	now, err := rc.Shared(ctx, way)
	if err != nil || !now.Season {
		return []*Shared{now}, err
	}
	numbered, err := rc.shares.PublishedOfSquad(ctx, now.SquadID, rc.base.Now().Add(-feedBack))
	for _, n := range numbered {
		if err != nil {
			break
		}
		link := *now.Link
		link.Session, link.Number, link.Removed = n.Session, n.Number, n.Removed
		var one *Shared
		if one, err = rc.shared(ctx, &link, n.Number); err != nil {
			break
		}
		if one.Person, one.Own = now.Person, now.Own; now.Own {
			err = rc.rule(ctx, one, time.Now().Add(-kept.For))
		}
		list = append(list, one)
	}
	return list, err
}

// rule works into a plan what medical staff have ruled for whom its person may know of.
func (rc *Reach) rule(ctx context.Context, s *Shared, after time.Time) error {
	all, err := rc.rulings.Since(ctx, s.ClubID, after, func(ctx context.Context) (keep.Ruled, error) {
		return rc.keep.Ruled(ctx, s.ClubID)
	})
	if err != nil {
		return err
	}
	published, err := rc.edition(ctx, s.Session, s.Number)
	if err != nil {
		return err
	}
	hold, _ := all.Of(published.Document)
	if s.Leader() == nil {
		hold = slices.DeleteFunc(hold, func(r plan.Restriction) bool { return r.Player != s.Person })
	}
	if len(hold) == 0 {
		return nil
	}
	d := published.Document.Clone()
	s.Document, d.Restrictions = d, hold
	book, err := rc.books.Book(ctx, s.ClubID)
	if err != nil {
		return err
	}
	for _, v := range today.Versions(d) { // what the book has in place of a drill
		item := &d.Block(v.Block).Items[v.Item]
		if stand := book.Item(item.Drill, d.Grade); item.Easier == nil && item.Swap == nil {
			item.Easier, item.Swap = stand.Easier, stand.Swap
		}
	}
	return nil
}

// Shown is the club's drill book as phones show it: as it was a minute ago at most.
func (rc *Reach) Shown(ctx context.Context, clubID uint64) (*books.Book, error) {
	return rc.shown.Get(ctx, clubID, func(ctx context.Context) (*books.Book, error) {
		return rc.books.Book(ctx, clubID)
	})
}

// ownKey is a person's own key to a link, of its secret.
func ownKey(secret, person string, turn store.Turn) string {
	if turn.Number > 0 {
		person = fmt.Sprintf("%s %d", person, turn.Number)
	}
	mac := hmac.New(sha256.New, []byte(secret))
	mac.Write([]byte(person))
	return base64.RawURLEncoding.EncodeToString(mac.Sum(nil))[:22]
}

// OwnLink is a person's own way into what is shared.
type OwnLink struct {
	Person string
	Name   string
	Ruled  bool   // it shows another version than the team's
	Path   string // below the link's; "": it is withdrawn
}

// OwnLinks are those of the players and of the leaders of a session that is shared; none
// where it is not.
func (rc *Reach) OwnLinks(ctx context.Context, b *boards.Board) (players, leaders []OwnLink, err error) {
	if b.Publication.Token == "" {
		return nil, nil, nil
	}
	turns, err := rc.shares.Turns(ctx, b.Publication.Token)
	if err != nil {
		return nil, nil, err
	}
	path := func(person string) string {
		if turns[person].Withdrawn {
			return ""
		}
		return "/" + person + "/" + ownKey(b.Publication.Secret, person, turns[person])
	}
	for _, player := range b.Document.Players {
		players = append(players, OwnLink{Person: player.ID, Name: player.Label(),
			Ruled: len(b.Document.Ruled(player.ID)) > 0,
			Path:  path(player.ID)})
	}
	for _, leader := range b.Document.Leaders {
		person := LeaderMark + leader.ID
		leaders = append(leaders, OwnLink{Person: person, Name: leader.Name, Ruled: false, Path: path(person)})
	}
	return players, leaders, nil
}

// Forget lets go what is kept of plans in which somebody stands who was erased.
func (rc *Reach) Forget() {
	rc.editions.Clear()
	rc.rulings.Clear()
}
