package account

import (
	"errors"
	"net/http"
	"strconv"

	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/web/shell"
)

// staffBody is who signs in for the club.
type staffBody struct {
	Members  []member
	Pending  []pendingRow
	Invited  invitation
	Invites  bool // who looks may invite
	Medical  bool
	Head     bool
	Terms    planner.Terms
	Problems plan.Problems
}

type member struct {
	planner.Account
	Mine    bool // to change
	Self    bool
	CanRole bool
}

type pendingRow struct {
	planner.Invitation
	Until string
}

// invitation is the form that invites somebody.
type invitation struct{ Name, Email, Role string }

// Members is who signs in for the club.
func (in Room) Members(r *shell.Request) (shell.Answer, error) {
	return in.staffPage(r, nil, invitation{})
}

func (in Room) staffPage(r *shell.Request, wrong plan.Problems, sent invitation) (*shell.Page, error) {
	ctx := r.Context()
	b := staffBody{Problems: wrong, Invited: sent, Invites: r.May(planner.ToAsk), Medical: r.Medical()}
	accounts, err := in.Staff.Accounts(ctx, r.Club())
	if err != nil {
		return nil, err
	}
	for _, a := range accounts {
		one := member{Account: a, Self: a.ID == r.By.ID}
		one.Mine = !one.Self && (r.May(planner.ToLead) && a.Role != planner.Medical ||
			r.May(planner.ToVouch) && a.Role == planner.Medical)
		one.CanRole = one.Mine && r.May(planner.ToLead)
		b.Members = append(b.Members, one)
	}
	pending, err := in.Staff.Invitations(ctx, r.Club())
	if err != nil {
		return nil, err
	}
	for _, i := range pending {
		b.Pending = append(b.Pending, pendingRow{i, i.Expires.Format("Mon 2 January")})
	}
	if b.Head, err = in.Staff.IsHead(ctx, r.By); err != nil {
		return nil, err
	}
	if b.Terms, err = in.Staff.Terms(ctx, r.Club()); err != nil {
		return nil, err
	}
	return &shell.Page{Screens: screens, Name: "staff", Title: "Who signs in", Nav: "staff", Body: b}, nil
}

// Invite asks somebody to join the staff: the letter with their link is theirs alone.
func (in Room) Invite(r *shell.Request) (shell.Answer, error) {
	f := r.Form
	sent := invitation{Name: f.Text("name"), Email: shell.CleanEmail(f.Raw("email")), Role: f.Raw("role")}
	f.Must("name", plan.NameProblem(sent.Name))
	if !emailLike(sent.Email) {
		f.Refuse("email", "write an e-mail address such as physio@club.example")
	}
	role := planner.Role(sent.Role)
	if role.Name() == "" {
		f.Refuse("role", "pick a role")
	}
	waits, err := false, f.Err()
	if err == nil {
		waits, err = in.Staff.Invite(r.Context(), r.By, sent.Name, sent.Email, role, r.Origin())
	}
	said := "An invitation is on its way to " + sent.Email
	if waits {
		said = sent.Name + " is invited as soon as one of your medical staff has confirmed it"
	}
	return r.Saved(err, said, "/staff", func(wrong plan.Problems) (*shell.Page, error) {
		return in.staffPage(r, wrong, sent)
	})
}

// staffChange answers a change of a member or an invitation.
func (in Room) staffChange(r *shell.Request, err error, said string) (shell.Answer, error) {
	if errors.Is(err, planner.ErrTaken) {
		err = plan.In("staff", "the club needs a coach: make somebody else one first")
	}
	return r.Saved(err, said, "/staff", func(wrong plan.Problems) (*shell.Page, error) {
		return in.staffPage(r, wrong, invitation{})
	})
}

// Withdraw ends an invitation before it is used.
func (in Room) Withdraw(r *shell.Request) (shell.Answer, error) {
	return in.staffChange(r, in.Staff.WithdrawInvitation(r.Context(), r.By, r.ParamID("id")),
		"The invitation is withdrawn")
}

// Confirm lets an invitation of medical staff go out.
func (in Room) Confirm(r *shell.Request) (shell.Answer, error) {
	if err := r.MustProve(); err != nil {
		return nil, err
	}
	return in.staffChange(r, in.Staff.Confirm(r.Context(), r.By, r.ParamID("id"), r.Origin()),
		"The invitation is on its way")
}

// SetRole makes a coach an assistant, or the other way round.
func (in Room) SetRole(r *shell.Request) (shell.Answer, error) {
	role := planner.Role(r.Form.Raw("role"))
	return in.staffChange(r, in.Staff.SetRole(r.Context(), r.By, r.ParamID("id"), role),
		"The role is changed: "+role.Name())
}

// Suspend lets a member sign in no more, or again.
func (in Room) Suspend(r *shell.Request) (shell.Answer, error) {
	suspended := r.Form.Raw("suspended") == "yes"
	said := "They may sign in again"
	if suspended {
		said = "They are signed out and may not sign in"
	}
	return in.staffChange(r, in.Staff.Suspend(r.Context(), r.By, r.ParamID("id"), suspended), said)
}

// RemoveMember takes a member's account away.
func (in Room) RemoveMember(r *shell.Request) (shell.Answer, error) {
	return in.staffChange(r, in.Staff.RemoveMember(r.Context(), r.By, r.ParamID("id")), "Their account is gone")
}

// SetTerms sets how long the club keeps what it need not keep.
func (in Room) SetTerms(r *shell.Request) (shell.Answer, error) {
	f := r.Form
	terms := planner.Terms{Reasons: f.Int("reasons", 0, mostDays), Tests: f.Int("tests", leastDays, mostDays),
		Sessions: f.Int("sessions", leastDays, mostDays), MedicalFactor: f.Has("factor"),
		Language: shell.Foreign(shell.TongueOf(f.Text("language")).Lang)}
	err := f.Err()
	if err == nil {
		err = in.Staff.SetTerms(r.Context(), r.By, terms)
	}
	return in.staffChange(r, err, "What is kept is set")
}

// How many days things may be kept.
const leastDays, mostDays = 30, 3650

// auditBody is what was written down of the club.
type auditBody struct {
	Rows       []auditRow
	From, Next int
}

type auditRow struct{ At, Who, What, Subject string }

// Audit is what was written down of the club, for its head.
func (in Room) Audit(r *shell.Request) (shell.Answer, error) {
	from, _ := strconv.Atoi(r.Query("from"))
	list, err := in.Staff.AuditLog(r.Context(), r.By, from)
	if err != nil {
		return nil, err
	}
	b := auditBody{From: from}
	for _, a := range list {
		b.Rows = append(b.Rows, auditRow{At: a.At.Format("2 Jan 2006, 15:04"), Who: a.Who, What: a.What,
			Subject: a.Subject})
	}
	if len(list) >= auditPage {
		b.Next = from + len(list)
	}
	return &shell.Page{Screens: screens, Name: "audit", Title: "Activity log", Nav: "staff", Body: b}, nil
}

// auditPage is how many entries a page has.
const auditPage = 100

// Outbox shows the letters of the site, where it is a demo.
func (in Room) Outbox(r *shell.Request) (shell.Answer, error) {
	if !r.Demo() {
		return nil, planner.ErrNotFound
	}
	letters, err := in.Staff.Letters(r.Context())
	return &shell.Page{Screens: screens, Name: "outbox", Title: "Outbox", Status: http.StatusOK, Body: letters}, err
}
