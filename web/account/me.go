package account

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
	Secret   string   // of a second factor that is being set
	Codes    []string // for when the phone is lost, just made
	Left     int      // how many of them are not used
	Problems plan.Problems
}

type signInRow struct {
	ID          uint64
	Agent, Seen string
	This        bool
}

// Me is one's own account: password, second factor, where one is signed in.
func (in Room) Me(r *shell.Request) (shell.Answer, error) { return in.mePage(r, nil) }

func (in Room) mePage(r *shell.Request, wrong plan.Problems) (*shell.Page, error) {
	b := meBody{Account: r.By, Problems: wrong}
	list, err := in.Staff.SignIns(r.Context(), r.By)
	if err != nil {
		return nil, err
	}
	for _, s := range list {
		b.SignIns = append(b.SignIns,
			signInRow{ID: s.ID, Agent: shell.Agent(s.Agent), Seen: s.Seen.Format("Mon 2 January, 15:04") + " UTC",
				This: s.ID == r.By.SignIn})
	}
	if b.Left, err = in.Staff.RecoveryCodes(r.Context(), r.By); err != nil {
		return nil, err
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
func (in Room) SetPassword(r *shell.Request) (shell.Answer, error) {
	f := r.Form
	problem, err := in.mustOwnPassword(r)
	if err != nil {
		return nil, err
	}
	f.Must("present", problem)
	f.Must("password", passwordProblem(f.Raw("password"), r.By.Email, r.By.Name, r.By.ClubName))
	if err = f.Err(); err == nil {
		var hash string
		if hash, err = in.Passwords.hashed(r.Context(), f.Raw("password")); err == nil {
			err = in.Staff.SetPassword(r.Context(), r.By, hash)
		}
	}
	return r.Saved(err, "Your password is changed", "/me", func(wrong plan.Problems) (*shell.Page, error) {
		return in.mePage(r, wrong)
	})
}

// SetLanguage sets in which language pages speak to who is signed in.
func (in Room) SetLanguage(r *shell.Request) (shell.Answer, error) {
	language := r.Form.Text("language")
	if language != "" {
		language = shell.TongueOf(language).Lang
	}
	return r.Saved(in.Staff.Speak(r.Context(), r.By, language), "The language is set", "/me",
		func(wrong plan.Problems) (*shell.Page, error) { return in.mePage(r, wrong) })
}

// languagePick is a field with the languages that pages speak.
type languagePick struct {
	Label, None, Is string
	All             [][2]string
}

func pickLanguage(label, none, is string) languagePick {
	return languagePick{Label: label, None: none, Is: is, All: shell.Tongues}
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
func (in Room) SetFactor(r *shell.Request) (shell.Answer, error) {
	key := factorKey(r)
	if key == nil {
		return shell.Go("/me"), nil
	}
	right, tooMany, err := r.Guarded(shell.ByFactor, r.By.Email,
		func() (bool, error) { return in.codeRight(r, r.By.ID, key.Secret(), r.Form.Text("code")) })
	if err != nil {
		return nil, err
	}
	if tooMany {
		return nil, shell.Refusal{Status: http.StatusTooManyRequests, Heading: "Too many tries", Line: tooManyTries}
	}
	if !right {
		page, err := in.mePage(r,
			plan.Problems{{Where: "code", What: "that code is not right: look again, they change every half minute"}})
		if err == nil {
			page.Status = http.StatusUnprocessableEntity
		}
		return page, err
	}
	codes, err := in.Staff.SetFactor(r.Context(), r.By, key.Secret())
	if err != nil {
		return nil, err
	}
	r.Hold("")
	r.By.Factor = true
	return in.codesPage(r, codes)
}

// codesPage shows the codes for when the phone is lost, this once.
func (in Room) codesPage(r *shell.Request, codes []string) (shell.Answer, error) {
	page, err := in.mePage(r, nil)
	if err == nil {
		b := page.Body.(meBody)
		b.Codes = codes
		page.Body = b
	}
	return page, err
}

// RenewCodes makes new codes for when the phone is lost, for the password; the old ones are good no more.
func (in Room) RenewCodes(r *shell.Request) (shell.Answer, error) {
	problem, err := in.mustOwnPassword(r)
	if err == nil && problem != "" {
		err = plan.In("codes", "%s", problem)
	}
	var codes []string
	if err == nil {
		codes, err = in.Staff.RenewRecoveryCodes(r.Context(), r.By)
	}
	if err == nil {
		return in.codesPage(r, codes)
	}
	return r.Saved(err, "", "/me", func(wrong plan.Problems) (*shell.Page, error) { return in.mePage(r, wrong) })
}

// DropFactor takes the second factor off, for the password.
func (in Room) DropFactor(r *shell.Request) (shell.Answer, error) {
	problem, err := in.mustOwnPassword(r)
	if err == nil && problem != "" {
		err = plan.In("drop", "%s", problem)
	}
	if err == nil {
		_, err = in.Staff.SetFactor(r.Context(), r.By, "")
	}
	return r.Saved(err, "Your second factor is off", "/me", func(wrong plan.Problems) (*shell.Page, error) {
		return in.mePage(r, wrong)
	})
}

// EndSignIn signs one of one's browsers out.
func (in Room) EndSignIn(r *shell.Request) (shell.Answer, error) {
	return r.Saved(in.Staff.SignOut(r.Context(), r.By, r.ParamID("id")), "That browser is signed out", "/me",
		shell.Gone)
}
