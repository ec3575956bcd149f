package web

import (
	"cuestart/planner"
	"cuestart/web/account"
	"cuestart/web/board"
	"cuestart/web/files"
	"cuestart/web/phone"
	"cuestart/web/pitch"
	"cuestart/web/shell"
	"cuestart/web/words"
)

// routes is the map of the site: what anybody may open, and what whoever is signed in may
// open by the acts that their role allows ([planner.May]).
func (s site) routes(open shell.Routes) {
	club, change, keep := open.May(planner.ToSee), open.May(planner.ToPlan), open.May(planner.ToKeep)
	s.doors(open)
	s.accounts(open.May(planner.ToSelf), club)
	s.todays(club, change)
	s.books(club, keep)
	s.peoples(club, keep)
	s.places(club, keep)
	s.savedAndRead(club, keep)
	s.sessions(club, change)
	s.hand(club, change)
	s.runs(open, club, change)
	s.shared(open)
}

// doors are the ways in.
func (s site) doors(open shell.Routes) {
	open.Get("/", func(*shell.Request) (shell.Answer, error) { return shell.Go("/today"), nil })
	open.Get("/welcome", s.account.Welcome)
	open.Post("/welcome", s.account.Found)
	open.Get("/sign-in", s.account.SignIn)
	open.Post("/sign-in", s.account.Enter)
	open.Get("/sign-in/code", account.Code)
	open.Post("/sign-in/code", s.account.EnterCode)
	open.Post("/sign-out", account.Leave)
	open.Get("/forgot", account.Forgot)
	open.Post("/forgot", s.account.SendReset)
	open.Get("/reset/:token", s.account.Reset)
	open.Post("/reset/:token", s.account.SetReset)
	open.Get("/outbox", s.account.Outbox)
	open.Get("/join/:token", s.account.Invited)
	open.Post("/join/:token", s.account.Join)
}

// accounts are who signs in, and one's own account.
func (s site) accounts(self, club shell.Routes) {
	self.Get("/me", s.account.Me)
	self.Get("/me/factor.png", account.FactorImage)
	self.Post("/me/password", s.account.SetPassword)
	self.Post("/me/language", s.account.SetLanguage)
	self.Post("/me/factor/start", account.StartFactor)
	self.Post("/me/factor", s.account.SetFactor)
	self.Post("/me/factor/off", s.account.DropFactor)
	self.Post("/me/factor/codes", s.account.RenewCodes)
	self.Post("/me/sign-ins/:id/end", s.account.EndSignIn)
	self.Get("/again", account.Again)
	self.Post("/again", s.account.Prove)
	club.Get("/staff", s.account.Members)
	club.Post("/staff/:id/role", s.account.SetRole)
	club.Post("/staff/:id/suspend", s.account.Suspend)
	club.Post("/staff/:id/remove", s.account.RemoveMember)
	club.Post("/invitations", s.account.Invite)
	club.Post("/invitations/:id/withdraw", s.account.Withdraw)
	club.Post("/invitations/:id/confirm", s.account.Confirm)
	club.Get("/audit", s.account.Audit)
	club.Post("/terms", s.account.SetTerms)
}

func (s site) todays(club, change shell.Routes) {
	club.Get("/today", s.today.Show)
	club.Post("/take-back", shell.TakeBack)
	change.Get("/sessions/new", s.today.New)
	change.Get("/sessions/new/day", s.today.Forecast)
	change.Post("/sessions", s.today.Add)
}

func (s site) books(club, keep shell.Routes) {
	club.Get("/drills", s.book.Drills)
	club.Get("/drills/handout", s.sheet.Handout)
	club.Get("/drills/handout.pdf", s.sheet.HandoutPDF)
	club.Get("/drills/:code/picture.jpg", s.book.Picture)
	keep.Post("/drills/:code/picture", s.book.SetPicture)
	keep.Get("/drills/:code/figure", s.book.Figure)
	keep.Post("/drills/:code/figure", s.book.SaveFigure)
	keep.Post("/drills/:code/figure/try", s.book.TryFigure)
	club.Get("/drills/:code/figure.svg", s.book.FigureFile)
	club.Get("/drills/:code/figure.json", s.book.FigureFile)
	keep.Get("/drills/:code/edit", s.book.Edit)
	keep.Post("/drills/:code", s.book.Save)
	keep.Post("/drills/:code/remove", s.book.Remove)
	keep.Post("/drills/:code/describe", s.book.Describe)
	keep.Post("/drills/:code/merge", s.book.Merge)
	keep.Post("/drills/:code/reset", s.book.Reset)
	club.Get("/routines", s.book.Routines)
	keep.Get("/routines/new", s.words.NewList)
	keep.Post("/routines/words", s.words.KeepList)
	keep.Post("/routines/words/read", s.words.HearList)
	keep.Post("/words/file", words.DropWords)
	keep.Post("/routines/:id/slot", s.book.SaveSlot)
	keep.Post("/routines/:id/remove", s.book.RemoveRoutine)
	keep.Post("/routines/:id/hand-out", s.book.HandOut)
}

func (s site) peoples(club, keep shell.Routes) {
	club.Get("/squad", s.people.Squad)
	keep.Post("/squads", s.people.AddSquad)
	keep.Post("/squad/:squad/players", s.people.SavePlayer)
	keep.Post("/squad/:squad/names", s.people.TakeNames)
	keep.Post("/first/kit", s.today.CountKit)
	keep.Post("/first/ground", s.today.OtherZones)
	keep.Post("/squad/:squad/positions", s.people.AnswerPosition)
	keep.Post("/squad/:squad/players/:id/remove", s.people.RemovePlayer)
	club.Get("/squad/:squad/players/:id/person.json", s.people.Person)
	club.Post("/squad/:squad/players/:id/erase", s.people.Erase)
	keep.Post("/squad/:squad/units", s.people.SaveUnit)
	club.Post("/squad/:squad/rulings/:player", s.people.SaveRuling)
	club.Post("/rulings/:id/lift", s.people.LiftRuling)
	club.Get("/hurt/:id", s.people.Hurt)
	club.Post("/hurt/:id", s.people.AnswerHurt)
}

func (s site) places(club, keep shell.Routes) {
	club.Get("/ground", s.place.Ground)
	club.Get("/ground-plan/:id", s.place.Laid)
	keep.Post("/ground-plan/:id", s.place.Lay)
	keep.Post("/ground/:kind", s.place.Save)
	keep.Post("/ground/:kind/:id/remove", s.place.Remove)
	keep.Get("/sport", s.place.Sport)
	keep.Post("/sport", s.place.SaveSport)
	keep.Post("/sport/reset", s.place.ResetSport)
}

// savedAndRead is what is read in from files and saved as files.
func (s site) savedAndRead(club, keep shell.Routes) {
	keep.Get("/import", s.files.Import)
	keep.Post("/import", s.files.ReadIn)
	club.Get("/export/template.csv", files.Template)
	club.Get("/export/squad.csv", s.files.SaveSquad)
	club.Get("/export/tests.csv", s.files.SaveTests)
	club.Get("/export/tests.json", s.files.SaveTests)
	club.Get("/export/fixtures.csv", s.files.SaveFixtures)
	club.Get("/export/drills.csv", s.files.SaveDrills)
	club.Get("/routines/:id/routine.json", s.files.SaveRoutine)
	club.Get("/sessions/:session/plan.json", s.sheet.SavePlan)
	club.Get("/sessions/:session/plan.csv", s.sheet.SaveSheet)
	club.Get("/sessions/:session/calendar.ics", s.sheet.SaveCalendar)
	club.Get("/sessions/:session/board.svg", s.sheet.Picture)
	for path, paper := range map[string]shell.Handler{"sheet.pdf": s.sheet.SheetPDF, "cards": s.sheet.Cards,
		"cards.pdf": s.sheet.CardsPDF, "handout": s.sheet.Handout, "handout.pdf": s.sheet.HandoutPDF} {
		club.Get("/sessions/:session/"+path, paper)
	}
	club.Get("/routines/:id/steps", s.phone.Alone)
	club.Get("/routines/:id/handout", s.sheet.Handout)
	club.Get("/routines/:id/handout.pdf", s.sheet.HandoutPDF)
}

// hand is what the board does under the hand, and what it is looked at for.
func (s site) hand(club, change shell.Routes) {
	change.Get("/sessions/:session/drag", s.board.Drag)
	club.Get("/sessions/:session/people", s.board.People)
	club.Get("/sessions/:session/moment", s.board.Moment)
	club.Get("/sessions/:session/better", s.otherwise.Better)
	change.Post("/sessions/:session/better", s.board.TakeBetter)
	club.Get("/sessions/:session/history", s.otherwise.History)
	club.Get("/sessions/:session/what-if", s.otherwise.Suppose)
	change.Post("/sessions/:session/what-if", s.otherwise.TakeIf)
	change.Post("/sessions/:session/history", s.otherwise.GoBack)
	change.Post("/sessions/:session/people", s.board.Put)
	change.Post("/sessions/:session/drop", s.board.Drop)
}

func (s site) sessions(club, change shell.Routes) {
	club.Get("/sessions/:session", s.board.Show)
	club.Get("/sessions/:session/sheet", s.sheet.Show)
	club.Get("/sessions/:session/live", s.board.Live)
	club.Get("/sessions/:session/told", s.board.Told)
	change.Post("/sessions/:session/words/:word", s.board.TakeIn)
	club.Get("/sessions/:session/links", s.links.Links)
	club.Get("/sessions/:session/codes", s.links.Codes)
	change.Post("/sessions/:session/links/:person", s.links.Renew)
	change.Post("/sessions/:session/season", s.links.SetSeason)
	change.Post("/sessions/:session/head", s.board.Edit(board.SetHead))
	change.Post("/sessions/:session/timing", s.board.Edit(board.SetTiming))
	change.Post("/sessions/:session/spare", s.board.Edit(board.SetSpare))
	change.Post("/sessions/:session/slack", s.board.Edit(board.SetSlack))
	change.Post("/sessions/:session/pace", s.board.SetPace)
	change.Post("/sessions/:session/notes", s.board.Edit(board.SeeNotes))
	change.Post("/sessions/:session/day", s.board.Edit(board.SetDay))
	change.Post("/sessions/:session/factor", s.board.Edit(board.SetFactor))
	change.Post("/sessions/:session/turn", s.board.Edit(board.SetTurn))
	change.Post("/sessions/:session/roles", s.board.Edit(board.SetRole))
	change.Post("/sessions/:session/facing", s.board.Edit(board.SetFacing))
	change.Post("/sessions/:session/bring", s.board.Edit(board.SetBring))
	change.Post("/sessions/:session/lists", s.board.AddList)
	change.Post("/sessions/:session/lists/:list", s.board.Edit(board.SetList))
	change.Post("/sessions/:session/lists/:list/write", s.board.WriteList)
	change.Post("/sessions/:session/fixed", s.board.Edit(board.SetFixed))
	change.Post("/sessions/:session/players", s.board.Edit(board.SetPlayer))
	change.Post("/sessions/:session/rulings", s.board.TakeRulings)
	change.Post("/sessions/:session/mend", s.board.Mend)
	change.Post("/sessions/:session/keep", s.board.Edit(board.Except))
	change.Post("/sessions/:session/build", s.board.Build)
	change.Post("/sessions/:session/undo", s.board.Undo)
	change.Post("/sessions/:session/redo", s.board.Redo)
	change.Get("/sessions/:session/publish", s.links.Preview)
	change.Post("/sessions/:session/publish", s.board.Publish)
	change.Post("/sessions/:session/withdraw", s.board.Withdraw)
	change.Post("/sessions/:session/routine", s.board.KeepRoutine)
	change.Post("/sessions/:session/put", s.board.PutRoutine)
	change.Post("/sessions/:session/remove", s.board.Remove)
	change.Post("/sessions/:session/restore", s.board.Restore)
	s.blocks(change)
}

// runs are a session while it runs, and what is learnt from it.
func (s site) runs(open, club, change shell.Routes) {
	open.Get("/pitch/keeper.js", pitch.Worker)
	open.Get("/pitch/field.js", pitch.Core)
	club.Get("/pitch/:session", s.pitch.Show)
	club.Get("/pitch/:session/plan.json", s.pitch.Plan)
	club.Get("/pitch/:session/live", s.pitch.Live)
	open.May(planner.ToRun).Post("/pitch/:session/press", s.pitch.Press)
	club.Get("/sessions/:session/log", s.log.Show)
	change.Post("/sessions/:session/log", s.log.Save)
	club.Get("/sessions/:session/tests", s.log.ShowTests)
	change.Post("/sessions/:session/tests", s.log.SaveTests)
	change.Post("/sessions/:session/tests/read", s.log.ReadGate)
	club.Get("/sessions/:session/log.csv", s.log.SaveLog)
	club.Get("/sessions/:session/log.json", s.log.SaveLog)
	club.Get("/sessions/:session/report", s.log.Report)
	for _, name := range []string{"csv", "json", "svg"} {
		club.Get("/week."+name, s.log.SaveWeek)
	}
	club.Get("/log", s.log.Book)
	club.Get("/week", s.log.Week)
	change.Post("/week/targets", s.log.AddTarget)
	change.Post("/week/targets/:id/remove", s.log.RemoveTarget)
	change.Post("/week/fill", s.log.Fill)
}

func (s site) blocks(change shell.Routes) {
	change.Post("/sessions/:session/hear", s.board.Hear)
	change.Post("/sessions/:session/write", s.board.Write)
	change.Get("/sessions/:session/words", s.words.ShowWords)
	change.Post("/sessions/:session/words", s.words.PutWords)
	change.Post("/sessions/:session/words/read", s.words.HearWords)
	change.Post("/sessions/:session/principle", s.board.AddPrinciple)
	change.Post("/sessions/:session/relist", s.board.Edit(board.Relist))
	change.Post("/sessions/:session/blocks/:block", s.board.Edit(board.SetBlock))
	change.Post("/sessions/:session/blocks/:block/said", s.board.SetSaid)
	change.Post("/sessions/:session/blocks/:block/write", s.board.Write)
	change.Post("/sessions/:session/blocks/:block/items", s.board.SetItem)
	change.Post("/sessions/:session/blocks/:block/dose", s.board.Edit(board.SetDose))
	change.Post("/sessions/:session/blocks/:block/describe", s.board.Describe)
	change.Post("/sessions/:session/blocks/:block/forms", s.board.PutForm)
	change.Post("/sessions/:session/blocks/:block/form", s.board.Edit(board.SetForm))
	change.Post("/sessions/:session/blocks/:block/group", s.board.Edit(board.SetGroup))
	change.Post("/sessions/:session/blocks/:block/priority", s.board.Edit(board.SetPriority))
	change.Post("/sessions/:session/blocks/:block/order", s.board.Edit(board.SetOrder))
	change.Post("/sessions/:session/blocks/:block/remove", s.board.Edit(board.RemoveBlock))
}

// links are what players and leaders see, without a sign-in: by the team's link, with a
// player picked there, or by their own.
func (s site) shared(open shell.Routes) {
	open.Get("/r/keeper.js", phone.Worker)
	open.Get("/r/:token", s.phone.Squad)
	open.Get("/r/:token/calendar.ics", s.phone.Calendar)
	open.Get("/r/:token/picture/:code", s.phone.Picture)
	open.Get("/handed/:token", s.sheet.Handed)
	open.Get("/handed/:token/list.pdf", s.sheet.HandedPDF)
	open.Get("/handed/:token/steps", s.phone.Handed)
	open.Get("/handed/:token/picture/:code", s.phone.HandedPicture)
	open.Get("/r/:token/wall", s.phone.Wall)
	open.Get("/r/:token/wall/live", s.phone.Live)
	open.Get("/r/:token/wall/update", s.phone.Update)
	for _, way := range []string{"/r/:token/:player", "/r/:token/:player/:key"} {
		open.Get(way, s.phone.Mine)
		open.Get(way+"/calendar.ics", s.phone.Calendar)
		open.Get(way+"/live", s.phone.Live)
		open.Get(way+"/update", s.phone.Update)
		open.Post(way+"/say", s.phone.Say)
		open.Post(way+"/seen", s.phone.Seen)
		open.Get(way+"/manifest.webmanifest", s.phone.Manifest)
	}
}
