package say_test

import (
	"bufio"
	"fmt"
	"os"
	"regexp"
	"testing"

	"cuestart/book"
	"cuestart/core/say"
)

func TestDebug(t *testing.T) {
	f, err := os.Open("/tmp/lines.txt")
	if err != nil {
		t.Skip()
	}
	plays, _ := book.Sport("rugby-union")
	r := say.NewReader(say.Context{Book: book.Drills(), Sport: "rugby-union", Plays: &plays})
	for in := bufio.NewScanner(f); in.Scan(); {
		fmt.Println("##", in.Text())
		for _, one := range r.Readings(in.Text()) {
			fmt.Printf("  %5.1f %-8s %q a=%s who=%v lead=%q where=%q cues=%q times=%v n=%d\n", one.Score, one.Is, one.Name, short(one.Amount), one.Who, one.Leader, one.Where, one.Cues, one.Times, one.Numbers)
			for _, s := range one.Steps {
				fmt.Printf("              step %q %s\n", s.Name, short(s.Amount))
			}
		}
	}
}

func short(a any) string {
	text := fmt.Sprintf("%+v", a)
	return regexp.MustCompile(`[A-Za-z]+:(?:0|\[\]|false|)(?: |})`).ReplaceAllString(text, "")
}
