package stake_test

import (
	"cmp"
	"fmt"
	"slices"

	"cuestart/core/stake"
)

// What goes first: each step by what it costs, the cheapest being taken first where each saves as
// many minutes.
func Example() {
	type step struct {
		costs float64
		says  string
	}
	var enough, tooFew []step
	for name, b := range map[string]stake.Block{
		"a could":                  {Priority: stake.Could},
		"a should":                 {Priority: stake.Should},
		"a should at a set minute": {Priority: stake.Should, Timed: true},
		"a must":                   {Priority: stake.Must},
		"the pulse":                {Priority: stake.Should, Pulse: true},
	} {
		enough = append(enough, step{b.Weight() * (stake.Target - stake.Least), "do less of " + name})
		if b.Must() {
			tooFew = append(tooFew, step{b.Weight() * (stake.Least - stake.Once), "do each thing of " + name + " once"},
				step{b.Weight()*stake.Once + b.Lost(), "leave out " + name})
		} else {
			enough = append(enough, step{b.Weight() * stake.Least, "leave out " + name})
		}
	}
	order := func(a, b step) int {
		return cmp.Or(cmp.Compare(int(100*a.costs+0.5), int(100*b.costs+0.5)), cmp.Compare(a.says, b.says))
	}
	for _, steps := range [][]step{enough, tooFew} {
		slices.SortFunc(steps, order)
	}
	for _, s := range enough {
		fmt.Printf("%5.2f  %s\n", s.costs, s.says)
	}
	fmt.Println("and where the musts do not fit:")
	for _, s := range tooFew {
		fmt.Printf("%5.2f  %s\n", s.costs, s.says)
	}
	// Output:
	//  0.10  do less of a could
	//  0.30  do less of a should
	//  0.90  do less of a must
	//  0.90  do less of a should at a set minute
	//  0.90  do less of the pulse
	//  0.90  leave out a could
	//  2.70  leave out a should
	//  8.10  leave out a should at a set minute
	// and where the musts do not fit:
	//  3.60  do each thing of a must once
	//  3.60  do each thing of the pulse once
	// 13.50  leave out a must
	// 24.50  leave out the pulse
}
