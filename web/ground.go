package web

import (
	"fmt"
	"net/http"
	"slices"
	"strings"

	"github.com/alexedwards/argon2id"
	"github.com/gin-gonic/gin"

	"cuestart/core/club"
	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/store"
)

type groundBody struct {
	Venues   []planner.Venue
	Kit      []store.Kept[club.Kit]
	Staff    []store.Kept[club.Staff]
	Accounts []store.Account
	Needs    []string // kit that the drill book asks for and that is not counted
	Form     *groundForm
	Coach    bool
	Invited  invitedBody
	Link     string
	Problems plan.Problems
}

// groundForm is the one thing that is open for change.
type groundForm struct {
	Kind    club.Kind
	ID      uint64
	Owner   uint64
	Edition uint32
	Venue   club.Venue
	Zone    club.Zone
	Kit     club.Kit
	Staff   club.Staff
}

// Title says what the form is about.
func (f *groundForm) Title() string {
	name := map[club.Kind]string{club.KindVenue: f.Venue.Name, club.KindZone: f.Zone.Name, club.KindKit: f.Kit.Name, club.KindStaff: f.Staff.Name}[f.Kind]
	if f.ID != 0 {
		return name
	}
	return map[club.Kind]string{club.KindVenue: "A new ground", club.KindZone: "A new zone", club.KindKit: "Kit to count", club.KindStaff: "Who leads"}[f.Kind]
}

func (s *Site) ground(c *gin.Context) { s.showGround(c, http.StatusOK, nil, nil) }

func (s *Site) showGround(c *gin.Context, status int, wrong plan.Problems, refill func(*groundBody)) {
	ctx, clubID := c.Request.Context(), account(c).ClubID
	g := s.groundOf(c)
	if g == nil {
		return
	}
	body := &groundBody{Venues: g.Venues, Kit: g.Kit, Staff: g.Staff, Coach: coach(c), Problems: wrong}
	var err error
	if body.Accounts, err = s.Planner.Store.Accounts(ctx, clubID); err != nil {
		s.failed(c, err)
		return
	}
	b := s.book(c)
	if b == nil {
		return
	}
	for _, d := range b.Drills {
		for _, k := range slices.Concat(d.Kit, d.LaneKit) {
			if !slices.Contains(body.Needs, k) && !slices.ContainsFunc(g.Kit, func(have store.Kept[club.Kit]) bool { return have.Is.Name == k }) {
				body.Needs = append(body.Needs, k)
			}
		}
	}
	slices.Sort(body.Needs)
	body.Form = groundFormOf(g, club.Kind(c.Query("edit")), c.Query("id"), numberID(c.Query("of")))
	if body.Form != nil && body.Form.ID == 0 && body.Form.Kind == club.KindKit {
		body.Form.Kit.Name = c.Query("name")
	}
	if !body.Coach {
		body.Form = nil
	}
	if refill != nil {
		refill(body)
	}
	s.show(c, status, "ground/ground", "Ground and kit", "ground", body)
}

// groundFormOf is the form of what is asked for, or nil.
func groundFormOf(g *planner.Ground, kind club.Kind, id string, of uint64) *groundForm {
	f := &groundForm{Kind: kind, Owner: of, Zone: club.Zone{Capacity: 30, Lanes: 6}, Kit: club.Kit{Pieces: 10}, Venue: club.Venue{TimeZone: "Europe/London"}}
	if id == "new" && slices.Contains([]club.Kind{club.KindVenue, club.KindZone, club.KindKit, club.KindStaff}, kind) {
		return f
	}
	f.ID = numberID(id)
	for _, v := range g.Venues {
		if kind == club.KindVenue && v.ID == f.ID {
			f.Venue, f.Edition = v.Is, v.Edition
			return f
		}
		for _, z := range v.Zones {
			if kind == club.KindZone && z.ID == f.ID {
				f.Zone, f.Edition, f.Owner = z.Is, z.Edition, v.ID
				return f
			}
		}
	}
	for _, k := range g.Kit {
		if kind == club.KindKit && k.ID == f.ID {
			f.Kit, f.Edition = k.Is, k.Edition
			return f
		}
	}
	for _, k := range g.Staff {
		if kind == club.KindStaff && k.ID == f.ID {
			f.Staff, f.Edition = k.Is, k.Edition
			return f
		}
	}
	return nil
}

// thing is what the form holds.
func (f *groundForm) thing() club.Thing {
	switch f.Kind {
	case club.KindVenue:
		return f.Venue
	case club.KindZone:
		return f.Zone
	case club.KindKit:
		return f.Kit
	case club.KindStaff:
		return f.Staff
	}
	return nil
}

func (s *Site) saveGround(c *gin.Context) {
	field := func(name string) string { return strings.TrimSpace(c.PostForm(name)) }
	f := &groundForm{Kind: club.Kind(c.Param("kind")), ID: numberID(c.PostForm("id")), Owner: numberID(c.PostForm("of")), Edition: edition(c),
		Venue: club.Venue{Name: field("name"), TimeZone: field("time_zone")},
		Zone: club.Zone{Name: field("name"), Capacity: number(field("capacity")), Lanes: number(field("lanes")), Metres: number(field("metres")), Surface: field("surface"),
			Covered: field("covered") != "", Opens: field("opens"), Closes: field("closes")},
		Kit:   club.Kit{Name: field("name"), Pieces: number(field("pieces"))},
		Staff: club.Staff{Name: field("name"), Role: field("role"), Leads: field("leads") != "", Opens: field("opens"), Closes: field("closes")}}
	is := f.thing()
	if is == nil {
		s.notFound(c)
		return
	}
	if f.Kind != club.KindZone {
		f.Owner = 0
	} else if g := s.groundOf(c); g == nil {
		return
	} else if !slices.ContainsFunc(g.Venues, func(v planner.Venue) bool { return v.ID == f.Owner }) {
		s.notFound(c)
		return
	}
	said := is.Label() + " is saved"
	ids, err := s.Planner.Keep(c.Request.Context(), *account(c), said, store.Change{ID: f.ID, Owner: f.Owner, Edition: f.Edition, Is: is})
	if err == nil && f.Kind == club.KindVenue && f.ID == 0 && field("usual") != "" {
		err = s.Planner.UsualZones(c.Request.Context(), *account(c), ids[0])
	}
	s.saved(c, err, said, "/ground", func(status int, wrong plan.Problems) {
		s.showGround(c, status, wrong, func(b *groundBody) { b.Form = f })
	})
}

func (s *Site) removeGround(c *gin.Context) {
	g := s.groundOf(c)
	if g == nil {
		return
	}
	f := groundFormOf(g, club.Kind(c.Param("kind")), c.Param("id"), 0)
	if f == nil || f.ID == 0 {
		s.notFound(c)
		return
	}
	changes := []store.Change{{ID: f.ID, Is: f.thing(), Gone: true}}
	for _, v := range g.Venues {
		for _, z := range v.Zones {
			if f.Kind == club.KindVenue && v.ID == f.ID {
				changes = append(changes, store.Change{ID: z.ID, Is: z.Is, Gone: true})
			}
		}
	}
	said := f.thing().Label() + " is taken out"
	_, err := s.Planner.Keep(c.Request.Context(), *account(c), said, changes...)
	s.saved(c, err, said, "/ground", func(status int, wrong plan.Problems) { s.showGround(c, status, wrong, nil) })
}

// invitedBody is the form that invites somebody, and the one that they answer.
type invitedBody struct {
	Name, Email, Role, Club string
	Token                   string
	Problems                plan.Problems
}

var roleNames = map[store.Role]string{store.Coach: "coach", store.Assistant: "assistant", store.Medical: "medical staff"}

// RoleName names the role of an account.
func (groundBody) RoleName(r store.Role) string { return roleNames[r] }

func (s *Site) invite(c *gin.Context) {
	form := invitedBody{Name: strings.TrimSpace(c.PostForm("name")), Email: cleanEmail(c.PostForm("email")), Role: c.PostForm("role")}
	wrong := plan.Problems{}
	if what := plan.NameProblem(form.Name); what != "" {
		wrong = append(wrong, plan.Problem{Where: "invite", What: what})
	}
	if !emailLike(form.Email) {
		wrong = append(wrong, plan.Problem{Where: "invite", What: "write an e-mail address such as physio@club.example"})
	}
	if roleNames[store.Role(form.Role)] == "" || account(c).Role != store.Coach {
		wrong = append(wrong, plan.Problem{Where: "invite", What: "a coach picks a role: coach, assistant or medical"})
	}
	token := ""
	if len(wrong) == 0 {
		var err error
		if token, err = s.Planner.Store.Invite(c.Request.Context(), *account(c), form.Name, form.Email, store.Role(form.Role), s.Planner.Now()); err != nil {
			s.failed(c, err)
			return
		}
	}
	s.showGround(c, map[bool]int{true: http.StatusOK, false: http.StatusUnprocessableEntity}[token != ""], wrong, func(b *groundBody) {
		b.Invited = form
		if token != "" {
			b.Link = s.origin(c) + "/join/" + token
		}
	})
}

func (s *Site) invited(c *gin.Context) {
	who, err := s.Planner.Store.Invited(c.Request.Context(), c.Param("token"), s.Planner.Now())
	if err != nil {
		s.overInvitation(c, err)
		return
	}
	s.show(c, http.StatusOK, "ground/join", "Join "+who.ClubName, "", invitedBody{Name: who.Name, Email: who.Email, Role: roleNames[who.Role], Club: who.ClubName, Token: c.Param("token")})
}

func (s *Site) overInvitation(c *gin.Context, err error) {
	if err == store.ErrNotFound {
		s.plain(c, http.StatusNotFound, "This invitation is over", "It was used, is older than a week, or the address is not whole. Ask your coach for a new one.")
		return
	}
	s.failed(c, err)
}

func (s *Site) join(c *gin.Context) {
	ctx, token := c.Request.Context(), c.Param("token")
	who, err := s.Planner.Store.Invited(ctx, token, s.Planner.Now())
	if err != nil {
		s.overInvitation(c, err)
		return
	}
	again := func(status int, what string) {
		s.show(c, status, "ground/join", "Join "+who.ClubName, "", invitedBody{Name: who.Name, Email: who.Email, Role: roleNames[who.Role], Club: who.ClubName, Token: token,
			Problems: plan.Problems{{Where: "password", What: what}}})
	}
	if what := passwordProblem(c.PostForm("password")); what != "" {
		again(http.StatusUnprocessableEntity, what)
		return
	}
	hash, err := argon2id.CreateHash(c.PostForm("password"), argon2id.DefaultParams)
	if err == nil {
		who, err = s.Planner.Store.Join(ctx, token, hash, s.Planner.Now())
	}
	switch err {
	case nil:
		s.letIn(c, who)
	case store.ErrTaken:
		again(http.StatusConflict, fmt.Sprintf("%s signs in here already: ask to be invited with another address", who.Email))
	default:
		s.overInvitation(c, err)
	}
}
