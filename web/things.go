package web

import (
	"errors"
	"net/http"
	"strconv"
	"strings"

	"github.com/gin-gonic/gin"

	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/store"
)

// saidKey is what was done, to be said once on the next page.
const saidKey = "said"

// say has something said on the next page.
func (s *Site) say(c *gin.Context, what string) {
	s.sessions.Put(c.Request.Context(), saidKey, what)
}

// saved answers a form that changes what the club keeps: it goes on to the page
// next, or shows the form again with what is wrong with it.
func (s *Site) saved(c *gin.Context, err error, said, next string, again func(status int, wrong plan.Problems)) {
	var refused plan.Problems
	switch {
	case err == nil:
		s.say(c, said)
		c.Redirect(http.StatusSeeOther, next)
	case errors.As(err, &refused):
		again(http.StatusUnprocessableEntity, refused)
	case errors.Is(err, store.ErrTaken):
		again(http.StatusConflict, plan.Problems{{Where: "taken", What: "Another one has this name or number already."}})
	case errors.Is(err, store.ErrStale):
		again(http.StatusConflict, plan.Problems{{Where: "stale", What: "Somebody else changed this meanwhile. Open it again to see how it is now; your change was not made."}})
	case errors.Is(err, planner.ErrForbidden):
		s.plain(c, http.StatusForbidden, "That is not yours to change", "Medical staff make rulings; coaches and assistants change everything else.")
	default:
		s.failed(c, err)
	}
}

// takeBack undoes the last change of what the club keeps.
func (s *Site) takeBack(c *gin.Context) {
	summary, err := s.Planner.Store.TakeBack(c.Request.Context(), *account(c))
	switch {
	case err == nil:
		s.say(c, "Taken back: "+summary)
	case errors.Is(err, store.ErrNothing):
		s.say(c, "There is nothing more to take back")
	case errors.Is(err, store.ErrStale), errors.Is(err, store.ErrTaken):
		s.say(c, "It was changed again since, and stays as it is now")
	default:
		s.failed(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, safePath(c.PostForm("back")))
}

// book is the club's drill book; nil where the failure has been answered. So
// are squadOf and groundOf.
func (s *Site) book(c *gin.Context) *planner.Book {
	b, err := s.Planner.Book(c.Request.Context(), account(c).ClubID)
	if err != nil {
		s.failed(c, err)
		return nil
	}
	return b
}

func (s *Site) squadOf(c *gin.Context, id uint64) *planner.Squad {
	squad, err := s.Planner.Squad(c.Request.Context(), account(c).ClubID, id)
	if err != nil {
		s.failed(c, err)
		return nil
	}
	return squad
}

func (s *Site) groundOf(c *gin.Context) *planner.Ground {
	g, err := s.Planner.Ground(c.Request.Context(), account(c).ClubID)
	if err != nil {
		s.failed(c, err)
		return nil
	}
	return g
}

// number reads a whole number of a form; 0 where it is none.
func number(text string) int {
	n, _ := strconv.Atoi(strings.TrimSpace(text)) // what is no number is refused as 0 where that is wrong
	return n
}

func numberID(text string) uint64 {
	n, _ := strconv.ParseUint(text, 10, 64) // 0, which nothing has, if it is none
	return n
}

// entries splits a text at line breaks and semicolons.
func entries(text string) (list []string) {
	for _, one := range strings.FieldsFunc(text, func(r rune) bool { return r == '\n' || r == ';' }) {
		if one = strings.TrimSpace(one); one != "" {
			list = append(list, one)
		}
	}
	return list
}

// coach tells whether the account may change what the club keeps.
func coach(c *gin.Context) bool { return account(c) != nil && account(c).Role != store.Medical }

// coaches lets only coaches and assistants through.
func (s *Site) coaches(c *gin.Context) {
	if !coach(c) {
		s.plain(c, http.StatusForbidden, "That is for coaches", "Medical staff make rulings on the squad's page; coaches and assistants change everything else.")
		return
	}
	c.Next()
}

// coachesWrite lets only coaches and assistants change a session; all may see it.
func (s *Site) coachesWrite(c *gin.Context) {
	if c.Request.Method != http.MethodGet {
		s.coaches(c)
		return
	}
	c.Next()
}
