package store

import (
	"context"

	"cuestart/store/db"
)

// Squad is a team of a club.
type Squad struct {
	ID    uint64
	Name  string
	Grade string // junior, club or elite
}

// Empty tells whether the database has no club yet.
func (s Clubs) Empty(ctx context.Context) (bool, error) {
	n, err := s.queries.CountClubs(ctx)
	return n == 0, err
}

// Found makes a club, its first squad and its first coach. Only the first club of a database can
// be made so; later ones fail with ErrTaken, also when two ask at once.
func (s Clubs) Found(ctx context.Context, club, sport, squad, grade string, coach Account,
	passwordHash string) (account Account, squadID uint64, err error) {
	err = s.within(ctx, func(q *db.Queries) error {
		// One after the other, so that only one can be first.
		if err := q.LockFounding(ctx); err != nil {
			return err
		}
		if n, err := q.CountClubs(ctx); err != nil || n > 0 {
			if err == nil {
				err = ErrTaken
			}
			return err
		}
		clubID, err := q.AddClub(ctx, db.AddClubParams{Name: club, Sport: sport})
		if err != nil {
			return err
		}
		id, err := q.AddAccount(ctx, db.AddAccountParams{ClubID: uint64(clubID), Email: coach.Email, Name: coach.Name,
			Role: string(coach.Role), PasswordHash: passwordHash})
		if err != nil {
			return known(err)
		}
		first, err := q.AddSquad(ctx, db.AddSquadParams{ClubID: uint64(clubID), Name: squad, Grade: grade})
		squadID = uint64(first)
		if err == nil {
			err = audit(ctx, q, Account{ClubID: uint64(clubID), Name: coach.Name, Email: coach.Email},
				"founded the club", club)
		}
		account = coach
		account.ID, account.ClubID, account.ClubName = uint64(id), uint64(clubID), club
		return err
	})
	return account, squadID, err
}

// Squads lists the squads of a club, the oldest first.
func (s Clubs) Squads(ctx context.Context, clubID uint64) ([]Squad, error) {
	rows, err := s.queries.Squads(ctx, clubID)
	squads := make([]Squad, len(rows))
	for i, row := range rows {
		squads[i] = Squad{row.ID, row.Name, row.Grade}
	}
	return squads, err
}

// AddSquad makes a further squad of a club.
func (s Clubs) AddSquad(ctx context.Context, clubID uint64, name, grade string) (uint64, error) {
	id, err := s.queries.AddSquad(ctx, db.AddSquadParams{ClubID: clubID, Name: name, Grade: grade})
	return uint64(id), known(err)
}

// Squad returns a squad of the club, or ErrNotFound.
func (s Clubs) Squad(ctx context.Context, clubID, id uint64) (Squad, error) {
	row, err := s.queries.Squad(ctx, db.SquadParams{ID: id, ClubID: clubID})
	return Squad{row.ID, row.Name, row.Grade}, known(err)
}

// Sport is the key or name of the club's sport, as it was founded.
func (s Clubs) Sport(ctx context.Context, clubID uint64) (string, error) {
	row, err := s.queries.Club(ctx, clubID)
	return row.Sport, known(err)
}

// BookEdition counts the changes of the club's drills and sport.
func (s Clubs) BookEdition(ctx context.Context, clubID uint64) (uint32, error) {
	edition, err := s.queries.BookEdition(ctx, clubID)
	return edition, known(err)
}
