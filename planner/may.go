package planner

import (
	"slices"
)

// Act is something that a role may do, or may not.
type Act string

// The acts. A new one is given to nobody until it stands in the table.
const (
	ToSee    Act = "see what the club plans, keeps and has logged"
	ToPlan   Act = "plan sessions, publish them and hand out links"
	ToRun    Act = "run a session at the pitch side"
	ToKeep   Act = "keep squads, ground, kit, drills, routines, tests and the log"
	ToRule   Act = "make and lift medical rulings"
	ToRead   Act = "read the reason of a ruling, and what is said of pain"
	ToAnswer Act = "answer who is hurt"
	ToLead   Act = "invite and change coaches and assistants"
	ToVouch  Act = "invite, confirm and change medical staff"
	ToAsk    Act = "ask for medical staff to be invited, which one of them confirms"
	ToExport Act = "take out all that is known of a player"
	ToErase  Act = "forget a player for good"
	ToSelf   Act = "look after their own account"
)

// may says what each role may do: nothing else.
var may = map[Role][]Act{
	Coach:     {ToSelf, ToSee, ToPlan, ToRun, ToKeep, ToLead, ToAsk, ToExport, ToErase},
	Assistant: {ToSelf, ToSee, ToPlan, ToRun, ToKeep, ToExport},
	Medical:   {ToSelf, ToSee, ToRule, ToRead, ToAnswer, ToVouch, ToAsk, ToExport, ToErase},
}

// May fails with ErrForbidden where an account's role does not allow an act.
func May(by Account, act Act) error {
	if by.ID == 0 || !slices.Contains(may[by.Role], act) {
		return ErrForbidden
	}
	return nil
}

// Acts are all acts, each with the roles that may do it, for who reads the table.
func Acts() (acts []Act, roles map[Act][]Role) {
	acts = []Act{ToSee, ToPlan, ToRun, ToKeep, ToRule, ToRead, ToAnswer, ToLead, ToAsk, ToVouch, ToExport, ToErase,
		ToSelf}
	roles = map[Act][]Role{}
	for _, role := range []Role{Coach, Assistant, Medical} {
		for _, act := range may[role] {
			roles[act] = append(roles[act], role)
		}
	}
	return acts, roles
}
