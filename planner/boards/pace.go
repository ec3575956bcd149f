package boards

import (
	"context"
	"fmt"
	"math"

	"cuestart/core/pace"
	"cuestart/core/plan"
	"cuestart/planner"
)

// paceOver is over how many days a team's own pace is looked for.
const paceOver = 365

// paces are how long a squad's blocks lasted against what their doses come to, by name.
func (bd *Boards) paces(ctx context.Context, clubID, session uint64) (map[string]pace.Pace, error) {
	squad, err := bd.logs.SquadOf(ctx, clubID, session)
	if err != nil {
		return nil, err
	}
	runs, err := bd.logs.BlockRuns(ctx, squad, bd.base.Now().AddDate(0, 0, -paceOver))
	ratios := map[string][]float64{}
	for _, r := range runs {
		ratios[r.Name] = append(ratios[r.Name], float64(r.Actual)/float64(r.Planned)*r.Pace)
	}
	paces := map[string]pace.Pace{}
	for name, all := range ratios {
		paces[name] = pace.Of(all)
	}
	return paces, err
}

// Slower is a block that runs longer or shorter with this team than it is planned.
type Slower struct {
	Block string // id
	Says  string // "Scrum runs 11 % longer here, 4 times"
	Times float64
}

// Paces are the blocks of a board's plan that a team's own pace is offered for.
func (b *Board) Paces() (list []Slower) {
	for i := range b.Document.Blocks {
		block := &b.Document.Blocks[i]
		own := b.paces[block.Name]
		if !own.Offered() || block.Pace > 0 && math.Abs(math.Log(block.Pace)-own.Mu) < 0.02 {
			continue
		}
		way, by := "longer", math.Round(100*(own.Times()-1))
		if by < 0 {
			way, by = "shorter", -by
		}
		list = append(list, Slower{block.ID, fmt.Sprintf("%s runs %.0f %% %s here, %d times", block.Name, by, way,
			own.Runs), math.Round(own.Times()*100) / 100})
	}
	return list
}

// TakePace plans a block as long as it runs with this team. It fails as [Boards.Change]
// does, and with [plan.Problems] where it is not offered any more.
func (bd *Boards) TakePace(ctx context.Context, by planner.Account, id uint64, revision uint32,
	block string) (*Board, error) {
	if err := planner.May(by, planner.ToPlan); err != nil {
		return nil, err
	}
	b, err := bd.Board(ctx, by.ClubID, id)
	if err != nil {
		return nil, err
	}
	for _, slower := range b.Paces() {
		if slower.Block == block {
			return bd.Change(ctx, by, id, revision, func(d *plan.Document) (string, error) {
				return d.SetPace(block, slower.Times)
			})
		}
	}
	return nil, plan.In("board", "That is not offered any more.")
}

// known counts the runs that paces were made of.
func known(paces map[string]pace.Pace) (runs int) {
	for _, p := range paces {
		runs += p.Runs
	}
	return runs
}
