package shell

import (
	"cmp"
	"embed"
	"fmt"
	"net/http"
	"strings"
	"sync"
	"time"

	"go.yaml.in/yaml/v3"
	"golang.org/x/text/language"
	"golang.org/x/text/message"
	"golang.org/x/text/message/catalog"

	"cuestart/core/speech"
)

// Tongue is the language in which a page speaks to a player or a leader. Its sentences
// are those of the English page; what a club calls its drills, places and people stays as
// the club calls it.
type Tongue struct {
	Lang    string // such as "en"
	printer *message.Printer
	words   map[string]string
}

//go:embed languages/*.yaml
var languages embed.FS

// tongues are those that pages speak, English first. Another one is a file more.
var tongues = []language.Tag{language.English, language.Spanish}

// Tongues are those that a page offers, each by its code and its own name.
var Tongues = [][2]string{{"en", "English"}, {"es", "Español"}}

var tongueOf = language.NewMatcher(tongues)

// texts is the catalogue, read when it is first asked for: a file for each language, the English sentence first; and
// the sentences by language.
var texts = sync.OnceValues(func() (all *catalog.Builder, known map[string]map[string]string) {
	all, known = catalog.NewBuilder(catalog.Fallback(language.English)), map[string]map[string]string{}
	for _, tag := range tongues[1:] {
		known[tag.String()] = Texts(tag.String())
		for english, other := range known[tag.String()] {
			if err := all.SetString(tag, english, other); err != nil {
				panic(fmt.Errorf("%s, %q: %w", tag, english, err))
			}
		}
	}
	return all, known
})

// Texts are all sentences of a language by the English ones, of players' and leaders' pages; with
// of they are those of a room's own table, such as "coach".
func Texts(lang string, of ...string) map[string]string {
	file, err := languages.ReadFile("languages/" + strings.Join(append([]string{lang}, of...), ".") + ".yaml")
	texts := map[string]string{}
	if err == nil {
		err = yaml.Unmarshal(file, &texts)
	}
	if err != nil {
		panic(err) // they are embedded
	}
	return texts
}

// TongueOf is the language of that code, English where it is not spoken.
func TongueOf(lang string) Tongue {
	for _, tag := range tongues[1:] {
		if tag.String() == lang {
			all, known := texts()
			return Tongue{lang, message.NewPrinter(tag, message.Catalog(all)), known[lang]}
		}
	}
	return Tongue{Lang: "en"}
}

// Tongue is the language of who asks: what they picked, or else what their browser says.
func (r *Request) Tongue() Tongue {
	if picked := r.Query("lang"); picked != "" {
		tongue := TongueOf(picked)
		http.SetCookie(r.gin.Writer, &http.Cookie{Name: "lang", Value: tongue.Lang, Path: "/",
			MaxAge: int((365 * 24 * time.Hour).Seconds()), SameSite: http.SameSiteLaxMode, Secure: r.shell.Secure})
		return tongue
	}
	if picked := r.Cookie("lang"); picked != "" {
		return TongueOf(picked)
	}
	tag, _ := language.MatchStrings(tongueOf, r.Header("Accept-Language"))
	base, _ := tag.Base()
	return TongueOf(base.String())
}

// Speaks is the language in which pages speak to who asks: to who is signed in the one that they chose,
// or else their club's; to others as [Request.Tongue].
func (r *Request) Speaks() Tongue {
	if r.By.ID == 0 {
		return r.Tongue()
	}
	return TongueOf(cmp.Or(r.By.Language, r.By.Clubs))
}

// Foreign is a language that is kept: "" is English.
func Foreign(lang string) string {
	if lang == "en" {
		return ""
	}
	return lang
}

// T says a sentence. Its format is the English one.
func (t Tongue) T(format string, args ...any) string {
	if t.printer == nil {
		return speech.English(format, args...)
	}
	return t.printer.Sprintf(format, args...)
}

// Word says a word, or a sentence as it stands, with nothing put in.
func (t Tongue) Word(word string) string {
	if other := t.words[word]; other != "" {
		return other
	}
	return word
}

// Say is T as the core takes it.
func (t Tongue) Say() speech.Say { return t.T }

// Day writes the day of a moment: "Saturday 28 November".
func (t Tongue) Day(at time.Time) string {
	return t.T("%s %d %s", t.Word(at.Weekday().String()), at.Day(), t.Word(at.Month().String()))
}

// ShortDay writes the day of a moment, short: "Sat 28 Nov".
func (t Tongue) ShortDay(at time.Time) string {
	return fmt.Sprintf("%s %d %s", t.Word(at.Format("Mon")), at.Day(), t.Word(at.Format("Jan")))
}

// Moment writes a moment of these days: "Sat 15:00".
func (t Tongue) Moment(at time.Time) string {
	return t.Word(at.Format("Mon")) + " " + at.Format("15:04")
}
