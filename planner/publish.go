package planner

import (
	"context"
	"crypto/hmac"
	"crypto/sha256"
	"encoding/base64"
	"slices"
	"strings"

	"cuestart/core/plan"
	"cuestart/core/today"
)

// Publish shares the plan in force, under the link that is there or else a new
// one. It is refused while medical staff have ruled what the plan does not hold. It
// fails with ErrStale where the plan is not revision any more, and with ErrNotFound.
func (p *Planner) Publish(ctx context.Context, by Account, id uint64, revision uint32) (*Board, error) {
	session, err := p.session(ctx, by.ClubID, id)
	if err != nil {
		return nil, err
	}
	all, err := p.ruled(ctx, by.ClubID)
	if err != nil {
		return nil, err
	}
	if _, newer := all.of(session.Document); len(newer) > 0 {
		return nil, plan.In("board", "Medical staff have ruled since this plan was made: take that in first. %s.", strings.Join(newer, "; "))
	}
	if _, err := p.store.Publish(ctx, by.ClubID, id, revision); err != nil {
		return nil, err
	}
	return p.Board(ctx, by.ClubID, id)
}

// Withdraw ends the session's link, so that it shows nothing any more.
func (p *Planner) Withdraw(ctx context.Context, by Account, id uint64) (*Board, error) {
	if err := p.store.Withdraw(ctx, by.ClubID, id); err != nil {
		return nil, err
	}
	return p.Board(ctx, by.ClubID, id)
}

// SetSeason lets the session's link stay good after the session, or end a day after it.
func (p *Planner) SetSeason(ctx context.Context, by Account, id uint64, season bool) (*Board, error) {
	if err := p.store.SetSeason(ctx, by.ClubID, id, season); err != nil {
		return nil, err
	}
	return p.Board(ctx, by.ClubID, id)
}

// Shared returns what a link shows to everybody: the plan as it is for who has no
// ruling. It fails with ErrNotFound, ErrWithdrawn or ErrOver.
func (p *Planner) Shared(ctx context.Context, token string) (*Shared, error) {
	found, err := p.store.Shared(ctx, token, p.Now())
	if err != nil {
		return nil, err
	}
	found.Document = found.Document.Clone()
	found.Document.Restrictions = nil
	return found, nil
}

// Own returns what a player's own link shows: the plan with what medical staff have
// ruled for that player, as it is now. It fails as Shared does, and with ErrNotFound
// where key is not the player's.
func (p *Planner) Own(ctx context.Context, token, player, key string) (*Shared, error) {
	found, err := p.store.Shared(ctx, token, p.Now())
	if err != nil {
		return nil, err
	}
	is := found.Document.Player(player)
	if is == nil || !hmac.Equal([]byte(key), []byte(ownKey(found.Secret, player))) {
		return nil, ErrNotFound
	}
	all, err := p.ruled(ctx, found.ClubID)
	if err != nil {
		return nil, err
	}
	book, err := p.Book(ctx, found.ClubID)
	if err != nil {
		return nil, err
	}
	d := found.Document.Clone()
	hold, _ := all.of(d)
	d.Restrictions = slices.DeleteFunc(hold, func(r plan.Restriction) bool { return r.Player != player })
	for _, v := range today.Versions(d) { // what the book has in place of a drill
		item := &d.Block(v.Block).Items[v.Item]
		if stand := book.Item(item.Drill, d.Grade); item.Easier == nil && item.Swap == nil {
			item.Easier, item.Swap = stand.Easier, stand.Swap
		}
	}
	found.Document = d
	return found, nil
}

// ownKey is a player's own key to a link, of its secret.
func ownKey(secret, player string) string {
	mac := hmac.New(sha256.New, []byte(secret))
	mac.Write([]byte(player))
	return base64.RawURLEncoding.EncodeToString(mac.Sum(nil))[:22]
}

// OwnLink is a player's own way into what is shared.
type OwnLink struct {
	Player plan.Player
	Ruled  bool   // it shows another version than the team's
	Path   string // below the link's
}

// OwnLinks are those of the players of a session that is shared; none where it is not.
func (p *Planner) OwnLinks(ctx context.Context, b *Board) (links []OwnLink, err error) {
	secret, err := p.store.LinkSecret(ctx, b.ID)
	if err != nil || secret == "" {
		return nil, err
	}
	for _, player := range b.Document.Players {
		links = append(links, OwnLink{player, len(b.Document.Ruled(player.ID)) > 0, "/" + player.ID + "/" + ownKey(secret, player.ID)})
	}
	return links, nil
}
