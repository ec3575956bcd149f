package reach

import (
	"context"
	"slices"

	"cuestart/core/list"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/core/speech"
	"cuestart/planner"
	"cuestart/planner/boards"
	"cuestart/planner/keep"
	"cuestart/store"
)

// Publish shares the plan in force, under the link that is there or else a new one. It is refused
// while medical staff have ruled what the plan does not hold, at the moment that it is published.
// It fails with ErrStale where the plan is not revision any more, and with ErrNotFound.
func (rc *Reach) Publish(ctx context.Context, by planner.Account, id uint64, revision uint32) (*boards.Board, error) {
	if err := planner.May(by, planner.ToPlan); err != nil {
		return nil, err
	}
	if _, err := rc.shares.Publish(ctx, by.ClubID, id, revision, keep.Publishable); err != nil {
		return nil, err
	}
	rc.base.Tell()
	board, err := rc.boards.Board(ctx, by.ClubID, id)
	if err != nil {
		return nil, err
	}
	return board, rc.boards.KeepOwn(ctx, by, board.Document)
}

// Withdraw ends the link that the session is shared by, so that it shows nothing any
// more.
func (rc *Reach) Withdraw(ctx context.Context, by planner.Account, id uint64) (*boards.Board, error) {
	if err := planner.May(by, planner.ToPlan); err != nil {
		return nil, err
	}
	if err := rc.shares.Withdraw(ctx, by.ClubID, id); err != nil {
		return nil, err
	}
	rc.base.Tell()
	return rc.boards.Board(ctx, by.ClubID, id)
}

// SetSeason has the link show the squad's next session once this one is over, or end a
// day after it.
func (rc *Reach) SetSeason(ctx context.Context, by planner.Account, id uint64, season bool) error {
	if err := planner.May(by, planner.ToPlan); err != nil {
		return err
	}
	return rc.shares.SetSeason(ctx, by.ClubID, id, season)
}

// RenewKey gives a person a new key to the session's link, or with gone none.
func (rc *Reach) RenewKey(ctx context.Context, by planner.Account, id uint64, person string, gone bool) error {
	if err := planner.May(by, planner.ToPlan); err != nil {
		return err
	}
	if err := rc.shares.RenewKey(ctx, by.ClubID, id, person, gone); err != nil {
		return err
	}
	rc.base.Tell()
	return nil
}

// Preview is what publishing a session's plan would bring whom.
type Preview struct {
	*boards.Board
	First  bool      // nothing was published before
	All    []string  // what the plan has otherwise, whoever it is for
	People []Changed // players whose own list changes
	Same   int       // players whose list stays as it is
}

// Changed is what a person's list has otherwise.
type Changed struct {
	Name  string
	Words []string
}

// Preview tells what publishing the plan in force would change, and for whom.
func (rc *Reach) Preview(ctx context.Context, clubID, id uint64) (*Preview, error) {
	b, err := rc.boards.Board(ctx, clubID, id)
	if err != nil {
		return nil, err
	}
	preview := &Preview{Board: b, First: b.Publication.Number == 0}
	if preview.First {
		return preview, nil
	}
	was, err := rc.edition(ctx, id, b.Publication.Number)
	if err != nil {
		return nil, err
	}
	for _, player := range b.Document.Players {
		words := Since(speech.English, was.Document, was.Schedule, b.Document, b.Schedule, player.ID)
		if len(words) == 0 {
			preview.Same++
			continue
		}
		preview.People = append(preview.People, Changed{player.Label(), words})
	}
	preview.All = common(preview.People, len(b.Document.Players))
	return preview, nil
}

// common are the changes that reach more than half of the players.
func common(people []Changed, players int) (all []string) {
	if len(people) == 0 {
		return nil
	}
	times := map[string]int{}
	var order []string
	for _, changed := range people {
		for _, words := range changed.Words {
			if times[words]++; times[words] == 1 {
				order = append(order, words)
			}
		}
	}
	for _, words := range order {
		if 2*times[words] > players {
			all = append(all, words)
		}
	}
	for i := range people {
		people[i].Words = slices.DeleteFunc(people[i].Words, func(w string) bool { return slices.Contains(all, w) })
	}
	return all
}

// Since says what a player's list has otherwise than in an earlier plan.
func Since(say speech.Say, was *plan.Document, before *schedule.Schedule, document *plan.Document,
	after *schedule.Schedule,
	player string) []string {
	return list.Changes(say, dated(was, before, player), dated(document, after, player))
}

func dated(d *plan.Document, s *schedule.Schedule, player string) list.Dated {
	return list.Dated{StartName: d.StartName, Start: s.Start, Entries: list.Of(d, s, player),
		Place: func(e *list.Entry) string {
			if e.Block == nil {
				return ""
			}
			return d.ZoneName(e.Block.Zone)
		},
		Leader: func(e *list.Entry) string {
			if e.Block == nil {
				return ""
			}
			return d.LeaderName(e.Block.Leader)
		}}
}

// edition reads a publication, that of a moment ago from memory.
func (rc *Reach) edition(ctx context.Context, session uint64, number int) (*store.Edition, error) {
	return rc.editions.Get(ctx, store.Numbered{Session: session, Number: number},
		func(ctx context.Context) (*store.Edition, error) {
			return rc.shares.Edition(ctx, session, number)
		})
}
