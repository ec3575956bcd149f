package main

import (
	"context"
	"fmt"
	"os"
	"sort"
	_ "time/tzdata"

	"cuestart/book"
	"cuestart/core/check"
	"cuestart/core/clock"
	"cuestart/core/compose"
	"cuestart/core/plan"
)

func main() {
	count := map[string]int{}
	sample := map[string]string{}
	n := 0
	for _, sp := range book.Sports() {
		for _, minutes := range []int{30, 45} {
			for _, people := range []int{14, 23} {
				air := 15.0
				b := compose.Brief{Title: "x", Kind: plan.Match, Start: clock.Start{Local: "2026-11-28T15:00", Zone: "Europe/London"}, Minutes: minutes, Sport: &sp, Today: plan.Conditions{Celsius: &air}, Book: book.Drills(), Steps: 3000}
				for i := range people {
					b.Players = append(b.Players, plan.Player{ID: fmt.Sprint("p", i), Number: i + 1, First: fmt.Sprint("P", i), Position: sp.Positions[i%len(sp.Positions)]})
				}
				for i, z := range sp.Zones {
					b.Zones = append(b.Zones, plan.Zone{ID: fmt.Sprint("z", i), Name: z.Name, Capacity: max(z.Capacity, 0), Lanes: z.Lanes, Metres: float64(z.Metres), Surface: z.Surface})
				}
				b.Leaders = []plan.Leader{{ID: "a", Name: "Ann"}, {ID: "b", Name: "Bo"}}
				b.Captain = "p0"
				made, err := compose.Compose(context.Background(), b)
				if err != nil {
					fmt.Println(sp.Key, err)
					continue
				}
				n++
				for _, f := range made.Findings {
					k := string(f.Severity) + " " + f.Rule
					count[k]++
					if sample[k] == "" || len(os.Args) > 1 && os.Args[1] == f.Rule {
						sample[k] += sp.Key + fmt.Sprint(minutes, people) + ": " + f.What + " @" + f.Where + "\n      "
					}
				}
			}
		}
	}
	var keys []string
	for k := range count {
		keys = append(keys, k)
	}
	sort.Strings(keys)
	fmt.Println(n, "plans")
	for _, k := range keys {
		fmt.Println(count[k], k, sample[k])
	}
	_ = check.Stop
}
