package store

import (
	"context"
	"database/sql"

	"cuestart/store/db"
)

// Role is what an account may do.
type Role string

// The roles.
const (
	Coach     Role = "coach"
	Assistant Role = "assistant"
	Medical   Role = "medical"
)

// Account is somebody of a club who signs in.
type Account struct {
	ID       uint64
	ClubID   uint64
	ClubName string
	Email    string // in lower case
	Name     string
	Role     Role
}

// Squad is a team of a club.
type Squad struct {
	ID    uint64
	Name  string
	Grade string // junior, club or elite
}

// Player is a member of a squad.
type Player struct {
	Number                int // 0: none
	First, Last, Position string
	Foot, Hand            string // left, right or both
}

// Zone is a place of a venue.
type Zone struct {
	Name                    string
	Capacity, Lanes, Metres int
	Surface                 string
}

// Empty tells whether the database has no club yet.
func (s *Store) Empty(ctx context.Context) (bool, error) {
	n, err := s.queries.CountClubs(ctx)
	return n == 0, err
}

// Found makes a club, its first squad and its first coach. Only the first club
// of a database can be made so; later ones fail with ErrTaken, also when two
// ask at once.
func (s *Store) Found(ctx context.Context, club, sport, squad, grade string, coach Account, passwordHash string) (account Account, squadID uint64, err error) {
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
		id, err := q.AddAccount(ctx, db.AddAccountParams{ClubID: uint64(clubID), Email: coach.Email, Name: coach.Name, Role: db.AccountRole(coach.Role), PasswordHash: passwordHash})
		if err != nil {
			return known(err)
		}
		first, err := q.AddSquad(ctx, db.AddSquadParams{ClubID: uint64(clubID), Name: squad, Grade: db.SquadGrade(grade)})
		squadID = uint64(first)
		account = coach
		account.ID, account.ClubID, account.ClubName = uint64(id), uint64(clubID), club
		return err
	})
	return account, squadID, err
}

// AccountByEmail returns the account and the hash of its password, or
// ErrNotFound.
func (s *Store) AccountByEmail(ctx context.Context, email string) (Account, string, error) {
	row, err := s.queries.AccountByEmail(ctx, email)
	if err != nil {
		return Account{}, "", known(err)
	}
	return Account{ID: row.ID, ClubID: row.ClubID, Email: row.Email, Name: row.Name, Role: Role(row.Role)}, row.PasswordHash, nil
}

// Account returns an account, or ErrNotFound.
func (s *Store) Account(ctx context.Context, id uint64) (Account, error) {
	row, err := s.queries.Account(ctx, id)
	if err != nil {
		return Account{}, known(err)
	}
	return Account{ID: row.ID, ClubID: row.ClubID, ClubName: row.ClubName, Email: row.Email, Name: row.Name, Role: Role(row.Role)}, nil
}

// Squads lists the squads of a club, the oldest first.
func (s *Store) Squads(ctx context.Context, clubID uint64) ([]Squad, error) {
	rows, err := s.queries.Squads(ctx, clubID)
	squads := make([]Squad, len(rows))
	for i, row := range rows {
		squads[i] = Squad{row.ID, row.Name, string(row.Grade)}
	}
	return squads, err
}

// AddSquad makes a further squad of a club.
func (s *Store) AddSquad(ctx context.Context, clubID uint64, name, grade string) (uint64, error) {
	id, err := s.queries.AddSquad(ctx, db.AddSquadParams{ClubID: clubID, Name: name, Grade: db.SquadGrade(grade)})
	return uint64(id), known(err)
}

// AddPlayers adds players to a squad, all or none, and returns their ids.
func (s *Store) AddPlayers(ctx context.Context, squadID uint64, players []Player) (ids []uint64, err error) {
	err = s.within(ctx, func(q *db.Queries) error {
		for _, p := range players {
			id, err := q.AddPlayer(ctx, db.AddPlayerParams{SquadID: squadID, Number: sql.NullInt16{Int16: int16(p.Number), Valid: p.Number > 0},
				First: p.First, Last: p.Last, Position: p.Position, Foot: db.PlayerFoot(p.Foot), Hand: db.PlayerHand(p.Hand)})
			if err != nil {
				return known(err)
			}
			ids = append(ids, uint64(id))
		}
		return nil
	})
	return ids, err
}

// AddVenue adds a venue and its zones.
func (s *Store) AddVenue(ctx context.Context, clubID uint64, name, timeZone string, zones []Zone) error {
	return s.within(ctx, func(q *db.Queries) error {
		id, err := q.AddVenue(ctx, db.AddVenueParams{ClubID: clubID, Name: name, TimeZone: timeZone})
		if err != nil {
			return known(err)
		}
		for _, z := range zones {
			if _, err := q.AddZone(ctx, db.AddZoneParams{VenueID: uint64(id), Name: z.Name, Capacity: uint16(z.Capacity), Lanes: uint16(z.Lanes), Metres: uint16(z.Metres), Surface: z.Surface}); err != nil {
				return known(err)
			}
		}
		return nil
	})
}
