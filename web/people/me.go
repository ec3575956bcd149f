package people

import (
	"bytes"
	"encoding/base32"
	"image/png"
	"io"
	"net/http"
	"strings"

	"github.com/pquerna/otp"
	"github.com/pquerna/otp/totp"

	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/web/shell"
)

// meBody is one's own account.
type meBody struct {
	planner.Account
	SignIns  []signInRow
	Secret   string // of a second factor that is being set
	Problems plan.Problems
}

type signInRow struct {
	ID          uint64
	Agent, Seen string
	This        bool
}

// Me is one's own account: password, second factor, where one is signed in.
func Me(r *shell.Request) (shell.Answer, error) { return mePage(r, nil) }

func mePage(r *shell.Request, wrong plan.Problems) (*shell.Page, error) {
	b := meBody{Account: r.By, Problems: wrong}
	list, err := r.Planner.SignIns(r.Context(), r.By)
	if err != nil {
		return nil, err
	}
	for _, s := range list {
		b.SignIns = append(b.SignIns, signInRow{s.ID, shell.Agent(s.Agent), s.Seen.Format("Mon 2 January, 15:04") + " UTC", s.ID == r.By.SignIn})
	}
	if key := factorKey(r); key != nil {
		b.Secret = key.Secret()
	}
	return &shell.Page{Screens: screens, Name: "me", Title: "My account", Nav: "me", Body: b}, nil
}

// factorPrefix begins what is held of a second factor that is being set.
const factorPrefix = "factor:"

// factorKey is the second factor that is being set, or nil.
func factorKey(r *shell.Request) *otp.Key {
	secret, held := strings.CutPrefix(r.Held(), factorPrefix)
	if !held {
		return nil
	}
	raw, err := base32.StdEncoding.WithPadding(base32.NoPadding).DecodeString(secret)
	if err != nil {
		return nil
	}
	key, err := totp.Generate(totp.GenerateOpts{Issuer: "Cue Start", AccountName: r.By.Email, Secret: raw})
	if err != nil {
		return nil
	}
	return key
}

// FactorImage is the second factor that is being set, to be read by a phone.
func FactorImage(r *shell.Request) (shell.Answer, error) {
	key := factorKey(r)
	if key == nil {
		return nil, planner.ErrNotFound
	}
	image, err := key.Image(factorSize, factorSize)
	if err != nil {
		return nil, err
	}
	var text bytes.Buffer
	if err := png.Encode(&text, image); err != nil {
		return nil, err
	}
	return shell.File{Name: "factor.png", Kind: "image/png", Write: func(w io.Writer) error {
		_, err := w.Write(text.Bytes())
		return err
	}}, nil
}

// factorSize is how wide and high its image is.
const factorSize = 200

// SetPassword changes one's own password, and ends one's other sign-ins.
func SetPassword(r *shell.Request) (shell.Answer, error) {
	f := r.Form
	right, err := ownPassword(r)
	if err != nil {
		return nil, err
	}
	if !right {
		f.Refuse("present", "that is not your password")
	}
	f.Must("password", passwordProblem(f.Raw("password"), r.By.Email, r.By.Name, r.By.ClubName))
	if err = f.Err(); err == nil {
		var hash string
		if hash, err = hashed(r.Context(), f.Raw("password")); err == nil {
			err = r.Planner.SetPassword(r.Context(), r.By, hash)
		}
	}
	return r.Saved(err, "Your password is changed", "/me", func(wrong plan.Problems) (*shell.Page, error) { return mePage(r, wrong) })
}

// StartFactor begins to set a second factor: its secret is held until a code of it was
// given.
func StartFactor(r *shell.Request) (shell.Answer, error) {
	key, err := totp.Generate(totp.GenerateOpts{Issuer: "Cue Start", AccountName: r.By.Email})
	if err != nil {
		return nil, err
	}
	r.Hold(factorPrefix + key.Secret())
	return shell.Go("/me#factor"), nil
}

// SetFactor sets the second factor, if its code is right.
func SetFactor(r *shell.Request) (shell.Answer, error) {
	key := factorKey(r)
	if key == nil {
		return shell.Go("/me"), nil
	}
	right, err := codeRight(r, r.By.ID, key.Secret(), r.Form.Text("code"))
	if err != nil {
		return nil, err
	}
	if !right {
		page, err := mePage(r, plan.Problems{{Where: "code", What: "that code is not right: look again, they change every half minute"}})
		if err == nil {
			page.Status = http.StatusUnprocessableEntity
		}
		return page, err
	}
	r.Hold("")
	err = r.Planner.SetFactor(r.Context(), r.By, key.Secret())
	return r.Saved(err, "Your second factor is on", "/me", shell.Gone)
}

// DropFactor takes the second factor off, for the password.
func DropFactor(r *shell.Request) (shell.Answer, error) {
	right, err := ownPassword(r)
	if err == nil && !right {
		err = plan.In("drop", "that is not your password")
	}
	if err == nil {
		err = r.Planner.SetFactor(r.Context(), r.By, "")
	}
	return r.Saved(err, "Your second factor is off", "/me", func(wrong plan.Problems) (*shell.Page, error) { return mePage(r, wrong) })
}

// EndSignIn signs one of one's browsers out.
func EndSignIn(r *shell.Request) (shell.Answer, error) {
	return r.Saved(r.Planner.SignOut(r.Context(), r.By, r.ParamID("id")), "That browser is signed out", "/me", shell.Gone)
}
