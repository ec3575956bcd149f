package phone

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"strings"
	"time"

	"cuestart/planner"
	"cuestart/planner/reach"
	"cuestart/web/shell"
)

// update tells an open page what a newer edition has: each item by its key and times,
// and whole where it is otherwise; and what changed for its person, in words.
type update struct {
	Edition   int       `json:"n"`
	Published string    `json:"at"`
	Start     int64     `json:"start"`
	StartText string    `json:"bar"`
	Day       string    `json:"day"`
	Carry     string    `json:"carry"`
	Later     string    `json:"later,omitempty"` // the lists with a line of their own, where they are otherwise
	Items     []newItem `json:"items"`
	Changes   []string  `json:"changes"`
}

// newItem is an item of a newer edition.
type newItem struct {
	Key  string `json:"key"`
	From int    `json:"from"` // seconds from the start
	To   int    `json:"to"`
	HTML string `json:"html,omitempty"` // as it is written; "": as it was
}

// pulse is how often an open page hears the server's time, so that both know that the
// other is there.
const pulse = 20 * time.Second

// Live tells an open page at once what is new.
func (in Room) Live(r *shell.Request) (shell.Answer, error) {
	found, err := in.shared(r)
	if err != nil {
		return nil, err
	}
	tongue, have := r.Tongue(), r.QueryCount("have")
	return shell.Stream{Run: func(ctx context.Context, send func(event, data string) error) error {
		news := r.Live().Listen(found.Session, false)
		defer news.Close()
		beat := time.NewTicker(pulse)
		defer beat.Stop()
		have, err := in.tell(r, tongue, found, have, time.Now(), send)
		for err == nil {
			select {
			case <-ctx.Done():
				return nil
			case <-news.Over():
				return nil
			case <-beat.C:
				err = send("time", stamp(r))
			case at := <-news.News:
				have, err = in.retell(r, tongue, found, have, at, send)
			}
		}
		return err
	}}, nil
}

// errGone ends the stream of a page whose link is good no more.
var errGone = errors.New("the link shows nothing more")

// retell tells a page that has edition have what was new at a moment.
func (in Room) retell(r *shell.Request, tongue shell.Tongue, found *reach.Shared, have int, at time.Time,
	send func(event, data string) error) (int, error) {
	next, err := in.Reach.SharedSince(r.Context(), way(r), at)
	switch {
	case errors.Is(err, planner.ErrNotFound):
		return have, errors.Join(errGone, send("gone", ""))
	case err == nil && next.Session != found.Session: // the season's next one
		return have, send("edition", reload)
	case err != nil:
		return have, err // the page comes back, and asks anew
	}
	if err := in.tellAway(r, next, send); err != nil {
		return have, err
	}
	return in.tell(r, tongue, next, have, at, send)
}

// stamp is the server's time, for phones whose clock is wrong.
func stamp(r *shell.Request) string {
	now, _ := json.Marshal(r.Now().UnixMilli())
	return string(now)
}

// tell sends a page that has edition have what is newer, and the time where nothing is;
// it returns the edition that the page has then. What others were told after that moment
// is told again as it is.
func (in Room) tell(r *shell.Request, tongue shell.Tongue, found *reach.Shared, have int, after time.Time,
	send func(event, data string) error) (int, error) {
	if err := in.Reach.Opened(r.Context(), found, found.Number, false); err != nil {
		return have, err
	}
	if have >= found.Number {
		return have, send("time", stamp(r))
	}
	text, err := in.updateOf(r, tongue, found, have, after)
	if err == nil {
		err = send("edition", text)
	}
	return found.Number, err
}

// Update is the same for a page that cannot be told, and asks.
func (in Room) Update(r *shell.Request) (shell.Answer, error) {
	found, err := in.shared(r)
	if err != nil {
		return nil, err
	}
	have := r.QueryCount("have")
	if err := in.Reach.Opened(r.Context(), found, found.Number, false); err != nil {
		return nil, err
	}
	if have >= found.Number {
		return shell.Raw{Kind: shell.JSON, Content: []byte(`{"now":` + stamp(r) + `}`)}, nil
	}
	text, err := in.updateOf(r, r.Tongue(), found, have, time.Now())
	return shell.Raw{Kind: shell.JSON, Content: []byte(text)}, err
}

// reload has a page loaded anew: it is made of the whole plan.
const reload = `{"reload":true}`

// tellAway tells a leader's page who says that they are late, or is missed.
func (in Room) tellAway(r *shell.Request, found *reach.Shared, send func(event, data string) error) error {
	if found.Leader() == nil {
		return nil
	}
	away, err := in.Reach.Away(r.Context(), found)
	if err != nil {
		return err
	}
	text, err := json.Marshal(away)
	return errors.Join(err, send("away", string(text)))
}

// updateOf is what a page of a way shows otherwise than edition have.
func (in Room) updateOf(r *shell.Request, tongue shell.Tongue, found *reach.Shared, have int,
	after time.Time) (string, error) {
	if found.Document.Player(found.Person) == nil {
		return reload, nil
	}
	key := fmt.Sprint(found.Token, found.Session, found.Person, found.Own, have, found.Number, tongue.Lang)
	return in.updates.Since(r.Context(), key, after, func(ctx context.Context) (string, error) {
		return in.makeUpdate(r.Within(ctx), tongue, found, have)
	})
}

func (in Room) makeUpdate(r *shell.Request, tongue shell.Tongue, found *reach.Shared, have int) (string, error) {
	was, err := in.Reach.Before(r.Context(), found, have)
	if err != nil {
		return "", err
	}
	now, err := in.mineOf(r, tongue, found)
	if err != nil {
		return "", err
	}
	u := update{Edition: now.Edition, Published: now.Published, Start: now.StartUnix,
		StartText: now.StartName + " " + now.Start, Day: now.Day, Carry: now.Carry}
	before, later := map[string]string{}, ""
	if was != nil && was.Document.Player(was.Person) != nil {
		then, err := in.mineOf(r, tongue, was)
		if err != nil {
			return "", err
		}
		for _, one := range then.Items {
			before[one.Key] = itemHTML(one.Timeless())
		}
		later = string(then.Later)
		u.Changes = reach.Since(tongue.Say(), was.Document, was.Schedule, found.Document, found.Schedule, found.Person)
	}
	if u.Later = string(now.Later); u.Later == later {
		u.Later = ""
	} else if u.Later == "" {
		u.Later = " "
	}
	now.mark(int(r.Now().Sub(found.Schedule.Start).Seconds()), found.Schedule)
	for _, one := range now.Items {
		told := newItem{Key: one.Key, From: one.From, To: one.To}
		if before[one.Key] != itemHTML(one.Timeless()) {
			told.HTML = itemHTML(one)
		}
		u.Items = append(u.Items, told)
	}
	var text strings.Builder
	out := json.NewEncoder(&text)
	out.SetEscapeHTML(false) // it is no page: a tag stays as short as it is
	err = out.Encode(u)
	return strings.TrimSpace(text.String()), err
}

// itemHTML is an item as it is written, without the room that its template takes.
func itemHTML(one item) string {
	return strings.Join(strings.Fields(screens.Render("mine", "item", one)), " ")
}

// sentences are what the page's script says, in the page's language.
func sentences(t shell.Tongue) string {
	said := map[string]string{}
	for _, english := range []string{"to go", "minutes to go", "hours to go", "since the start", "%s left", "in %s",
		"Next, in %s", "No signal. This is plan %s, as it was %s.", "just now", "%s min ago", "%s h ago", "%s days ago",
		"Your phone's clock is %s min off. Ours is used.", "What changed", "Nothing changes for you.", "Plan %s",
		"Sent", "Will be sent when there is a signal", "Next", "Then", "Start in %s",
		"Done. Well prepared.", "Wait", "Go on", "Be there.", "%s of %s",
		"This link is no longer good. Ask your coach.", "That was not kept. Tell your coach.", "my own pace",
		"with the team", "%s to send",
		"This phone is full: keep the page open until it is sent.",
		"Stop now. Go to medical staff, or tell your coach face to face.", "rest", "Everybody"} {
		said[english] = t.Word(english)
	}
	text, _ := json.Marshal(said)
	return string(text)
}
