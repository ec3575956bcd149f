package store

import (
	"context"

	"cuestart/store/db"
)

// mostPictures is how many drills of a club may have a picture of its own.
const mostPictures = 500

// SetPicture keeps a club's own picture of a drill, in place of the one before; stamp is
// of its content. It fails with ErrTaken where the club has too many.
func (s Clubs) SetPicture(ctx context.Context, clubID uint64, code, stamp string, content []byte) error {
	return s.within(ctx, func(q *db.Queries) error {
		if n, err := q.CountPictures(ctx, clubID); err != nil || n >= mostPictures {
			if err == nil {
				err = ErrTaken
			}
			return err
		}
		return q.SetPicture(ctx, db.SetPictureParams{ClubID: clubID, Code: code, Stamp: stamp, Content: content})
	})
}

// RemovePicture takes a club's own picture of a drill away.
func (s Clubs) RemovePicture(ctx context.Context, clubID uint64, code string) error {
	return s.queries.RemovePicture(ctx, db.RemovePictureParams{ClubID: clubID, Code: code})
}

// Picture returns a club's own picture of a drill, or ErrNotFound.
func (s Clubs) Picture(ctx context.Context, clubID uint64, code string) ([]byte, error) {
	content, err := s.queries.Picture(ctx, db.PictureParams{ClubID: clubID, Code: code})
	return content, known(err)
}

// Pictures are the stamps of a club's own pictures, by the codes of the drills.
func (s Clubs) Pictures(ctx context.Context, clubID uint64) (map[string]string, error) {
	rows, err := s.queries.Pictures(ctx, clubID)
	stamps := map[string]string{}
	for _, row := range rows {
		stamps[row.Code] = row.Stamp
	}
	return stamps, err
}
