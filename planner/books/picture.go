package books

import (
	"bytes"
	"context"
	"crypto/sha256"
	"errors"
	"fmt"
	"image"
	"image/jpeg"

	"golang.org/x/image/draw"

	"cuestart/core/plan"
	"cuestart/planner"
)

// A club's picture of a drill is kept no larger than a phone shows it, in pixels.
const (
	pictureSide    = 900
	pictureQuality = 80
	mostPixels     = 16_000_000 // of one that is read: 64 MB while it is
)

// drawing is how many pictures are read and drawn anew at once.
var drawing = make(chan struct{}, 2)

// SetPicture keeps a club's own picture of a drill. It is drawn anew: nothing that the
// camera wrote into the file, such as where it was taken, is kept. It fails with
// [plan.Problems] where the file is no picture, with ErrForbidden and ErrNotFound.
func (bk *Books) SetPicture(ctx context.Context, by planner.Account, code string, file []byte) error {
	if err := planner.May(by, planner.ToKeep); err != nil {
		return err
	}
	book, err := bk.Book(ctx, by.ClubID)
	if err != nil {
		return err
	}
	if _, ok := book.Find(code); !ok {
		return planner.ErrNotFound
	}
	select {
	case drawing <- struct{}{}:
	case <-ctx.Done():
		return ctx.Err()
	}
	content, err := redrawn(file)
	<-drawing
	if err != nil {
		return plan.In("picture", "%s.", err)
	}
	stamp := fmt.Sprintf("%x", sha256.Sum256(content))[:12]
	err = bk.clubs.SetPicture(ctx, by.ClubID, code, stamp, content)
	bk.pictures.Clear()
	return err
}

// redrawn is a picture as it is kept.
func redrawn(file []byte) ([]byte, error) {
	size, _, err := image.DecodeConfig(bytes.NewReader(file))
	if err != nil {
		return nil, errors.New("pick a picture: JPEG, PNG or GIF")
	}
	if size.Width > mostPixels || size.Height > mostPixels || size.Width*size.Height > mostPixels {
		return nil, fmt.Errorf("the picture is %d × %d: make it smaller", size.Width, size.Height)
	}
	read, _, err := image.Decode(bytes.NewReader(file))
	if err != nil {
		return nil, errors.New("the picture is broken")
	}
	shrink := min(1, float64(pictureSide)/float64(max(size.Width, size.Height, 1)))
	made := image.NewRGBA(image.Rect(0, 0, max(1, int(float64(size.Width)*shrink)),
		max(1, int(float64(size.Height)*shrink))))
	draw.Draw(made, made.Bounds(), image.White, image.Point{}, draw.Src)
	scale(made, read)
	var content bytes.Buffer
	err = jpeg.Encode(&content, made, &jpeg.Options{Quality: pictureQuality})
	return content.Bytes(), err
}

// scale draws a picture smaller: a large one roughly to twice the size first, which takes a
// fraction of the time and looks the same.
func scale(made *image.RGBA, read image.Image) {
	if twice := image.Rect(0, 0, 2*made.Bounds().Dx(), 2*made.Bounds().Dy()); read.Bounds().Dx() > 2*twice.Dx() {
		rough := image.NewRGBA(twice)
		draw.ApproxBiLinear.Scale(rough, twice, read, read.Bounds(), draw.Src, nil)
		read = rough
	}
	draw.CatmullRom.Scale(made, made.Bounds(), read, read.Bounds(), draw.Over, nil)
}

// RemovePicture takes a club's own picture of a drill away. It fails with ErrForbidden.
func (bk *Books) RemovePicture(ctx context.Context, by planner.Account, code string) error {
	if err := planner.May(by, planner.ToKeep); err != nil {
		return err
	}
	defer bk.pictures.Clear()
	return bk.clubs.RemovePicture(ctx, by.ClubID, code)
}

// Picture is a club's own picture of a drill, a JPEG, or ErrNotFound.
func (bk *Books) Picture(ctx context.Context, clubID uint64, code string) ([]byte, error) {
	return bk.clubs.Picture(ctx, clubID, code)
}

// Pictures are the stamps of a club's own pictures by the codes of their drills, as they
// were at most a minute ago.
func (bk *Books) Pictures(ctx context.Context, clubID uint64) (map[string]string, error) {
	return bk.pictures.Get(ctx, clubID, func(ctx context.Context) (map[string]string, error) {
		return bk.clubs.Pictures(ctx, clubID)
	})
}
