package keep

import (
	"context"

	"cuestart/planner"
)

// Save makes changes of things that the club keeps: see [planner.Base.Save].
func (kp *Keep) Save(ctx context.Context, by planner.Account, summary string,
	changes ...planner.Change) ([]uint64, error) {
	return kp.base.Save(ctx, by, summary, changes...)
}

// Newest says what the account's last change of the last day was that is not
// taken back, or "".
func (kp *Keep) Newest(ctx context.Context, by planner.Account) (summary string, err error) {
	if err := planner.May(by, planner.ToSelf); err != nil {
		return "", err
	}
	summary, _, err = kp.clubs.Newest(ctx, by)
	return summary, err
}

// TakeBack undoes the account's last change of the last day, and says which it
// was. It fails with ErrNothing, and with ErrStale or ErrTaken where a thing was
// changed since.
func (kp *Keep) TakeBack(ctx context.Context, by planner.Account) (summary string, err error) {
	if planner.May(by, planner.ToKeep) != nil && planner.May(by, planner.ToRule) != nil {
		// each takes back what they did themselves
		return "", planner.ErrForbidden
	}
	follow, err := kp.base.Follow(ctx, by.ClubID)
	if err != nil {
		return "", err
	}
	if summary, err = kp.clubs.TakeBack(ctx, by); err == nil {
		err = follow(ctx, by)
	}
	return summary, err
}
