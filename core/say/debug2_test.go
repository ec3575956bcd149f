package say

import (
	"bufio"
	"encoding/json"
	"fmt"
	"os"
	"testing"
)

func TestDebugBoth(t *testing.T) {
	f, err := os.Open("/tmp/lines.txt")
	if err != nil {
		t.Skip()
	}
	var c Context
	text, _ := os.ReadFile("/tmp/ctx.json")
	json.Unmarshal(text, &c)
	r := NewReader(c)
	for in := bufio.NewScanner(f); in.Scan(); {
		a, b := r.ruled(in.Text()), r.Heard(in.Text())
		x, _ := json.Marshal(a)
		y, _ := json.Marshal(b)
		fmt.Println("##", in.Text(), r.explained(&a, &b), r.named(&a), lost(&a, a.Said), lost(&b, b.Said), "\n   ", string(x), "\n   ", string(y), b.score)
	}
}
