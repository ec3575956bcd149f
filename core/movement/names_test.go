package movement_test

import (
	"fmt"
	"os"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/movement"
)

// Of names that no book has, what they are for, what they work, in which planes and with how
// many contacts is right for 85 of 100 at least.
func TestNamesOfNoBookAreUnderstood(t *testing.T) {
	text, err := os.ReadFile("testdata/names.txt")
	require.NoError(t, err)
	all, right := 0, 0
	for line := range strings.Lines(string(text)) {
		if strings.HasPrefix(line, "#") {
			continue
		}
		cells := strings.Split(strings.TrimSpace(line), " | ")
		require.Len(t, cells, 5, line)
		all++
		u, known := movement.Of(cells[0])
		joints, planes := strings.Fields(cells[2]), strings.Fields(cells[3])
		switch {
		case !known:
			fmt.Println(cells[0], "| not known")
		case !slices.Contains(strings.Fields(cells[1]), u.Aim):
			fmt.Println(cells[0], "| is for", u.Aim)
		case 2*common(joints, u.Joints) < max(len(joints), len(u.Joints)):
			fmt.Println(cells[0], "| works", u.Joints)
		case common(planes, u.Planes) == 0:
			fmt.Println(cells[0], "| in", u.Planes)
		case (u.Contacts > 0) != (cells[4] == "yes"):
			fmt.Println(cells[0], "| contacts", u.Contacts)
		default:
			right++
		}
	}
	fmt.Println(right, "of", all)
	assert.GreaterOrEqual(t, 100*right, 85*all, "%d of %d", right, all)
}

func common(a, b []string) (n int) {
	for _, one := range a {
		if slices.Contains(b, one) {
			n++
		}
	}
	return n
}
