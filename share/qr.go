package share

import (
	"fmt"
	"strings"

	"github.com/boombuler/barcode/qr"
)

// Code is a text as a QR code: the dark modules as one SVG path, a unit each, in a
// square of Size with the quiet zone around it.
type Code struct {
	Path string
	Size int
}

// quietZone is how many modules around a code stay light (ISO/IEC 18004).
const quietZone = 4

// QR writes a text as a code that a seventh of may be dirty (level M).
func QR(text string) (Code, error) {
	code, err := qr.Encode(text, qr.M, qr.Auto)
	if err != nil {
		return Code{}, fmt.Errorf("the link is too long for a code: %w", err)
	}
	side := code.Bounds().Dx()
	var path strings.Builder
	for y := range side {
		for x := 0; x < side; x++ {
			from := x
			for ; x < side; x++ {
				if r, _, _, _ := code.At(x, y).RGBA(); r != 0 {
					break
				}
			}
			if x > from {
				fmt.Fprintf(&path, "M%d %dh%dv1h-%dz", from+quietZone, y+quietZone, x-from, x-from)
			}
		}
	}
	return Code{path.String(), side + 2*quietZone}, nil
}
