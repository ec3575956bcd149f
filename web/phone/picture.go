package phone

import (
	"net/url"
	"strings"

	"cuestart/web/shell"
)

// picture is the address of a club's own picture of a drill: under the link, or for who
// is signed in.
func picture(r *shell.Request, code, stamp string) string {
	if token := r.Param("token"); token != "" {
		if strings.HasPrefix(r.Path(), shell.Handed("")) {
			return shell.Handed(token) + "/picture/" + url.PathEscape(code) + "?" + stamp
		}
		return shell.Link(token) + "/picture/" + url.PathEscape(code) + "?" + stamp
	}
	return shell.Picture(code, stamp)
}

// Picture is a club's own picture of a drill that a link shows.
func (in Room) Picture(r *shell.Request) (shell.Answer, error) {
	found, err := in.shared(r)
	if err != nil {
		return nil, err
	}
	content, err := in.Books.Picture(r.Context(), found.ClubID, r.Param("code"))
	return shell.Raw{Kind: shell.JPEG, Content: content}, err
}

// HandedPicture is a club's own picture of a drill of a routine that is handed out.
func (in Room) HandedPicture(r *shell.Request) (shell.Answer, error) {
	clubID, _, err := shell.FindHanded(r)
	if err != nil {
		return nil, err
	}
	content, err := in.Books.Picture(r.Context(), clubID, r.Param("code"))
	return shell.Raw{Kind: shell.JPEG, Content: content}, err
}
