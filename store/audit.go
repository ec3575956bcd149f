package store

import (
	"context"
	"database/sql"
	"time"

	"cuestart/store/db"
)

// Audited is something that somebody did that the club's head can look up: who read
// a reason, ruled, lifted, invited, exported, signed in or failed to.
type Audited struct {
	Who, What, Subject string
	At                 time.Time
}

// Audit writes down what somebody did. What is said of it holds no medical words and
// no tokens.
func (s Accounts) Audit(ctx context.Context, by Account, what, subject string) error {
	return audit(ctx, s.queries, by, what, subject)
}

func audit(ctx context.Context, q *db.Queries, by Account, what, subject string) error {
	who := by.Name
	if who == "" {
		who = by.Email
	}
	return q.AddAudit(ctx, db.AddAuditParams{ClubID: by.ClubID, Who: cut(who, 120), What: cut(what, 40),
		Subject: cut(subject, 160), MadeAt: time.Now().UTC()})
}

// cut shortens a text to so many characters.
func cut(text string, most int) string {
	if runes := []rune(text); len(runes) > most {
		return string(runes[:most-1]) + "…"
	}
	return text
}

// AuditPage is how many entries of the audit log are read at once.
const AuditPage = 100

// AuditOf lists what was written down of a club, the latest first, from an entry on.
func (s Accounts) AuditOf(ctx context.Context, clubID uint64, from int) ([]Audited, error) {
	rows, err := s.queries.AuditOf(ctx, db.AuditOfParams{ClubID: clubID, Limit: AuditPage, Offset: int32(max(0, from))})
	list := make([]Audited, len(rows))
	for i, row := range rows {
		list[i] = Audited{Who: row.Who, What: row.What, Subject: row.Subject, At: row.MadeAt}
	}
	return list, err
}

// Terms are how long a club keeps what it need not keep, in days, whether it asks medical
// staff for a second factor, and in which language its pages speak.
type Terms struct {
	Reasons, Tests, Sessions int
	MedicalFactor            bool
	Language                 string // in which its pages speak, "" or a code such as "es"
}

// Terms returns those of a club.
func (s Accounts) Terms(ctx context.Context, clubID uint64) (Terms, error) {
	row, err := s.queries.Terms(ctx, clubID)
	return Terms{Reasons: int(row.ReasonsDays), Tests: int(row.TestsDays), Sessions: int(row.SessionsDays),
			MedicalFactor: row.MedicalFactor, Language: row.Language},
		known(err)
}

// SetTerms sets those of a club.
func (s Accounts) SetTerms(ctx context.Context, by Account, t Terms) error {
	return s.within(ctx, func(q *db.Queries) error {
		err := q.SetTerms(ctx, db.SetTermsParams{ReasonsDays: uint16(t.Reasons), TestsDays: uint16(t.Tests),
			SessionsDays: uint16(t.Sessions), MedicalFactor: t.MedicalFactor, Language: t.Language, ID: by.ClubID})
		if err != nil {
			return err
		}
		return audit(ctx, q, by, "set what is kept", "")
	})
}

// moment is now, or none.
func moment(now bool) sql.NullTime {
	return sql.NullTime{Time: time.Now().UTC(), Valid: now}
}
