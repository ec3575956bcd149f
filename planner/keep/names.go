package keep

import (
	"context"
	"fmt"
	"slices"
	"strings"

	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/sport"
	"cuestart/planner"
)

// TookNames is what became of names that were pasted.
type TookNames struct {
	Added, Changed, Same int
	Problems             []string // of lines that nobody was read from, a sentence each
	Left                 string   // those lines, as they were
}

// Words say it: "16 players are in, 2 were put right".
func (t TookNames) Words() string {
	var parts []string
	if t.Added > 0 {
		verb := "are"
		if t.Added == 1 {
			verb = "is"
		}
		parts = append(parts, fmt.Sprintf("%s %s in", drill.Number(t.Added, "players"), verb))
	}
	if t.Changed > 0 {
		parts = append(parts, fmt.Sprintf("%d put right", t.Changed))
	}
	if t.Same > 0 {
		parts = append(parts, fmt.Sprintf("%d were there already", t.Same))
	}
	if len(parts) == 0 {
		return "Nobody was read"
	}
	return strings.Join(parts, ", ")
}

// leave keeps a line that nobody was read from, or where it was too much all from there on.
func (t *TookNames) leave(text string, named club.Named) {
	t.Problems = append(t.Problems, fmt.Sprintf("Line %d: %s", named.Line, named.Problem))
	lines := strings.Split(text, "\n")
	if at := min(named.Line, len(lines)) - 1; named.More {
		t.Left += strings.Join(lines[at:], "\n")
	} else {
		t.Left += strings.TrimSuffix(lines[at], "\r") + "\n"
	}
}

// numbers leaves a shirt number with who has it in the squad: whoever was read with it has none.
func (t *TookNames) numbers(squad *Squad, incoming []Incoming) {
	has := map[int]string{}
	for _, k := range squad.Players {
		now := k.Is.Number
		for _, in := range incoming { // unless they were given another
			if same(in.Is) == same(k.Is) {
				now = in.Is.(club.Player).Number
			}
		}
		if now == k.Is.Number {
			has[now] = same(k.Is)
		}
	}
	for i := range incoming {
		player := incoming[i].Is.(club.Player)
		if owner, taken := has[player.Number]; player.Number > 0 && taken && owner != same(player) {
			t.Problems = append(t.Problems, fmt.Sprintf("Line %d: number %d is somebody else's: %s has none",
				incoming[i].Line, player.Number, player.Label()))
			player.Number = 0
			incoming[i].Is = player
		} else {
			has[player.Number] = same(player)
		}
	}
}

// count says what becomes of those who were read.
func (t *TookNames) count(differences []Difference) {
	for _, d := range differences {
		switch {
		case d.New:
			t.Added++
		case d.Same:
			t.Same++
		default:
			t.Changed++
		}
	}
}

// TakeNames reads players from a message ([club.ReadNames]) into a squad: who is there already is
// put right by what is said of them, nobody is taken out. It is one change that can be taken back.
func (kp *Keep) TakeNames(ctx context.Context, by planner.Account, squad *Squad,
	text string) (took TookNames, err error) {
	if err := planner.May(by, planner.ToKeep); err != nil {
		return took, err
	}
	plays, err := kp.books.Sport(ctx, by.ClubID)
	if err != nil {
		return took, err
	}
	if strings.TrimSpace(text) == "" {
		return took, plan.In("names", "paste the names first: one a line, or with commas between")
	}
	var incoming []Incoming
	for _, named := range club.ReadNames(text, plays) {
		if named.Problem != "" {
			took.leave(text, named)
			continue
		}
		incoming = append(incoming, Incoming{Line: named.Line, Is: squad.known(named.Player)})
	}
	took.numbers(squad, incoming)
	differences, _, err := Differences[club.Player](ctx, kp, by.ClubID, squad.ID, incoming)
	if err != nil {
		return took, err
	}
	took.count(differences)
	return took, kp.Import(ctx, by, took.Words(), differences)
}

// known is a player who was read, with what was not said of them as it is where they are there.
func (s *Squad) known(said club.Player) club.Player {
	i := slices.IndexFunc(s.Players, func(k planner.Entry[club.Player]) bool { return same(k.Is) == same(said) })
	if i < 0 {
		for _, side := range []*club.Side{&said.Foot, &said.Hand} {
			if *side == "" {
				*side = club.Right
			}
		}
		return said
	}
	player := s.Players[i].Is
	if said.Number > 0 {
		player.Number = said.Number
	}
	if said.Position != "" {
		player.Position = said.Position
	}
	for _, side := range []struct {
		is   *club.Side
		said club.Side
	}{{&player.Foot, said.Foot}, {&player.Hand, said.Hand}, {&player.Bats, said.Bats}} {
		if side.said != "" {
			*side.is = side.said
		}
	}
	return player
}

// Asked is a position that the sport does not have, and those that it is likest to.
type Asked struct {
	Said string
	Like []string
}

// AskPositions lists the positions of a squad's players that the sport does not have.
func (s *Squad) AskPositions(plays *sport.Sport) (list []Asked) {
	seen := map[string]bool{}
	for _, k := range s.Players {
		if k.Is.Position == "" {
			continue
		}
		_, unknown := plays.FindAll(k.Is.Position)
		for _, one := range unknown {
			if !seen[one] {
				seen[one] = true
				list = append(list, Asked{one, plays.Nearest(one, 2)})
			}
		}
	}
	return list
}

// AnswerPosition keeps that what was said of players is that position of the sport; with ""
// it is one of its own from now on. Those of the squad who were said to play so, do.
func (kp *Keep) AnswerPosition(ctx context.Context, by planner.Account, squad *Squad, said, as string) error {
	if err := planner.May(by, planner.ToKeep); err != nil {
		return err
	}
	own, err := kp.books.OwnSport(ctx, by.ClubID)
	if err != nil {
		return err
	}
	plays, err := kp.books.Sport(ctx, by.ClubID)
	if err != nil {
		return err
	}
	if said = strings.TrimSpace(said); plan.NameProblem(said) != "" {
		return plan.In("position", "%s", plan.NameProblem(said))
	}
	next := plays.With(said, as)
	if next == nil {
		return plan.In("position", "pick a position of your sport")
	}
	changes := []planner.Change{{Is: club.Sport{Sport: *next}}}
	if own != nil {
		changes[0].ID, changes[0].Edition = own.ID, own.Edition
	}
	for _, k := range squad.Players {
		player := k.Is
		positions, _ := next.FindAll(player.Position)
		if player.Position = strings.Join(positions, plan.BetweenPositions); player.Position != k.Is.Position {
			changes = append(changes, planner.Change{ID: k.ID, Owner: squad.ID, Edition: k.Edition, Is: player})
		}
	}
	_, err = kp.base.Save(ctx, by, fmt.Sprintf("what %s is", said), changes...)
	return err
}
