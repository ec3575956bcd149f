package shell

import (
	"strings"

	"cuestart/planner"
)

// LetIn starts a signed-in session under a new token, and leads back to where the
// browser wanted to go. Nothing is kept of a browser before that.
func (r *Request) LetIn(who planner.Account, back string) (Answer, error) {
	ctx := r.Context()
	id, err := r.shell.Office.Staff.SignIn(ctx, who, r.gin.Request.UserAgent())
	if err != nil {
		return nil, err
	}
	if err := r.shell.sessions.RenewToken(ctx); err != nil {
		return nil, err
	}
	if err := r.Know(who); err != nil {
		return nil, err
	}
	r.shell.sessions.Remove(ctx, pendingKey)
	r.shell.sessions.Put(ctx, signInKey, int64(id))
	return Go(back), nil
}

// LetOut ends the signed-in session, and has the browser forget all that it has kept: the next
// person there finds nothing.
func (r *Request) LetOut() error {
	r.gin.Header("Clear-Site-Data", `"cache", "storage"`)
	if id := r.shell.sessions.GetInt64(r.Context(), signInKey); id > 0 {
		if who, err := r.shell.Office.Staff.SignedIn(r.Context(), uint64(id)); err == nil {
			if err := r.shell.Office.Staff.SignOut(r.Context(), who, uint64(id)); err != nil {
				return err
			}
		}
	}
	return r.shell.sessions.Destroy(r.Context())
}

// Hold keeps a word of who is about to prove something more: whose password was right,
// or the secret of a second factor that is yet to be tried.
func (r *Request) Hold(what string) { r.shell.sessions.Put(r.Context(), pendingKey, what) }

// Held is what was held, or "".
func (r *Request) Held() string { return r.shell.sessions.GetString(r.Context(), pendingKey) }

// Agent is the browser in a few words.
func Agent(text string) string {
	for _, known := range [][2]string{{"Edg/", "Edge"}, {"Firefox/", "Firefox"}, {"Chrome/", "Chrome"},
		{"Safari/", "Safari"}} {
		if strings.Contains(text, known[0]) {
			system := "a computer"
			if strings.Contains(text, "Mobile") || strings.Contains(text, "Android") {
				system = "a phone"
			}
			return known[1] + " on " + system
		}
	}
	return "another browser"
}

// CleanEmail is an e-mail address as accounts keep it.
func CleanEmail(text string) string { return strings.ToLower(strings.TrimSpace(text)) }
