package shell

import (
	"errors"

	"cuestart/planner"
)

// TakeBack undoes the last change of what the club keeps, and says what it was.
func TakeBack(r *Request) (Answer, error) {
	summary, err := r.shell.Office.Keep.TakeBack(r.Context(), r.By)
	switch {
	case err == nil:
		r.Say("Taken back: " + summary)
	case errors.Is(err, planner.ErrNothing):
		r.Say("There is nothing more to take back")
	case errors.Is(err, planner.ErrStale), errors.Is(err, planner.ErrTaken):
		r.Say("It was changed again since, and stays as it is now")
	default:
		return nil, err
	}
	return Go(r.Form.Text("back")), nil
}
