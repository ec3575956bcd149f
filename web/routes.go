package web

import (
	"cuestart/planner"
	"cuestart/web/board"
	"cuestart/web/book"
	"cuestart/web/log"
	"cuestart/web/people"
	"cuestart/web/phone"
	"cuestart/web/pitch"
	"cuestart/web/place"
	"cuestart/web/sheet"
	"cuestart/web/shell"
	"cuestart/web/today"
)

// routes is the map of the site: what anybody may open, and what whoever is signed in may
// open by the acts that their role allows ([planner.May]).
func routes(open shell.Routes) {
	club, change, keep := open.May(planner.ToSee), open.May(planner.ToPlan), open.May(planner.ToKeep)
	doors(open)
	accounts(open.May(planner.ToSelf), club)
	todays(club, change)
	books(club, keep)
	peoples(club, keep)
	places(club, keep)
	files(club, keep)
	sessions(club, change)
	hand(club, change)
	runs(open, club, change)
	links(open)
}

// doors are the ways in.
func doors(open shell.Routes) {
	open.Get("/", func(*shell.Request) (shell.Answer, error) { return shell.Go("/today"), nil })
	open.Get("/welcome", people.Welcome)
	open.Post("/welcome", people.Found)
	open.Get("/sign-in", people.SignIn)
	open.Post("/sign-in", people.Enter)
	open.Get("/sign-in/code", people.Code)
	open.Post("/sign-in/code", people.EnterCode)
	open.Post("/sign-out", people.Leave)
	open.Get("/forgot", people.Forgot)
	open.Post("/forgot", people.SendReset)
	open.Get("/reset/:token", people.Reset)
	open.Post("/reset/:token", people.SetReset)
	open.Get("/outbox", people.Outbox)
	open.Get("/join/:token", people.Invited)
	open.Post("/join/:token", people.Join)
}

// accounts are who signs in, and one's own account.
func accounts(self, club shell.Routes) {
	self.Get("/me", people.Me)
	self.Get("/me/factor.png", people.FactorImage)
	self.Post("/me/password", people.SetPassword)
	self.Post("/me/language", people.SetLanguage)
	self.Post("/me/factor/start", people.StartFactor)
	self.Post("/me/factor", people.SetFactor)
	self.Post("/me/factor/off", people.DropFactor)
	self.Post("/me/factor/codes", people.RenewCodes)
	self.Post("/me/sign-ins/:id/end", people.EndSignIn)
	self.Get("/again", people.Again)
	self.Post("/again", people.Prove)
	club.Get("/staff", people.Staff)
	club.Post("/staff/:id/role", people.SetRole)
	club.Post("/staff/:id/suspend", people.Suspend)
	club.Post("/staff/:id/remove", people.RemoveMember)
	club.Post("/invitations", people.Invite)
	club.Post("/invitations/:id/withdraw", people.Withdraw)
	club.Post("/invitations/:id/confirm", people.Confirm)
	club.Get("/audit", people.Audit)
	club.Post("/terms", people.SetTerms)
}

func todays(club, change shell.Routes) {
	club.Get("/today", today.Show)
	club.Post("/take-back", shell.TakeBack)
	change.Get("/sessions/new", today.New)
	change.Get("/sessions/new/day", today.Forecast)
	change.Post("/sessions", today.Add)
}

func books(club, keep shell.Routes) {
	club.Get("/drills", book.Drills)
	club.Get("/drills/handout", sheet.Handout)
	club.Get("/drills/handout.pdf", sheet.HandoutPDF)
	club.Get("/drills/:code/picture.jpg", book.Picture)
	keep.Post("/drills/:code/picture", book.SetPicture)
	keep.Get("/drills/:code/figure", book.Figure)
	keep.Post("/drills/:code/figure", book.SaveFigure)
	keep.Post("/drills/:code/figure/try", book.TryFigure)
	club.Get("/drills/:code/figure.svg", book.FigureFile)
	club.Get("/drills/:code/figure.json", book.FigureFile)
	keep.Get("/drills/:code/edit", book.Edit)
	keep.Post("/drills/:code", book.Save)
	keep.Post("/drills/:code/remove", book.Remove)
	keep.Post("/drills/:code/describe", book.Describe)
	keep.Post("/drills/:code/merge", book.Merge)
	keep.Post("/drills/:code/reset", book.Reset)
	club.Get("/routines", book.Routines)
	keep.Get("/routines/new", board.NewList)
	keep.Post("/routines/words", board.KeepList)
	keep.Post("/routines/words/read", board.HearList)
	keep.Post("/words/file", board.DropWords)
	keep.Post("/routines/:id/slot", book.SaveSlot)
	keep.Post("/routines/:id/remove", book.RemoveRoutine)
	keep.Post("/routines/:id/hand-out", book.HandOut)
}

func peoples(club, keep shell.Routes) {
	club.Get("/squad", people.Squad)
	keep.Post("/squads", people.AddSquad)
	keep.Post("/squad/:squad/players", people.SavePlayer)
	keep.Post("/squad/:squad/names", people.TakeNames)
	keep.Post("/first/kit", today.CountKit)
	keep.Post("/first/ground", today.OtherZones)
	keep.Post("/squad/:squad/positions", people.AnswerPosition)
	keep.Post("/squad/:squad/players/:id/remove", people.RemovePlayer)
	club.Get("/squad/:squad/players/:id/person.json", people.Person)
	club.Post("/squad/:squad/players/:id/erase", people.Erase)
	keep.Post("/squad/:squad/units", people.SaveUnit)
	club.Post("/squad/:squad/rulings/:player", people.SaveRuling)
	club.Post("/rulings/:id/lift", people.LiftRuling)
	club.Get("/hurt/:id", people.Hurt)
	club.Post("/hurt/:id", people.AnswerHurt)
}

func places(club, keep shell.Routes) {
	club.Get("/ground", place.Ground)
	club.Get("/ground-plan/:id", place.Laid)
	keep.Post("/ground-plan/:id", place.Lay)
	keep.Post("/ground/:kind", place.Save)
	keep.Post("/ground/:kind/:id/remove", place.Remove)
	keep.Get("/sport", place.Sport)
	keep.Post("/sport", place.SaveSport)
	keep.Post("/sport/reset", place.ResetSport)
}

// files are what is read in and saved.
func files(club, keep shell.Routes) {
	keep.Get("/import", sheet.Import)
	keep.Post("/import", sheet.ReadIn)
	club.Get("/export/template.csv", sheet.Template)
	club.Get("/export/squad.csv", sheet.SaveSquad)
	club.Get("/export/tests.csv", sheet.SaveTests)
	club.Get("/export/tests.json", sheet.SaveTests)
	club.Get("/export/fixtures.csv", sheet.SaveFixtures)
	club.Get("/export/drills.csv", sheet.SaveDrills)
	club.Get("/routines/:id/routine.json", sheet.SaveRoutine)
	club.Get("/sessions/:session/plan.json", sheet.SavePlan)
	club.Get("/sessions/:session/plan.csv", sheet.SaveSheet)
	club.Get("/sessions/:session/calendar.ics", sheet.SaveCalendar)
	club.Get("/sessions/:session/board.svg", board.Picture)
	for path, paper := range map[string]shell.Handler{"sheet.pdf": sheet.SheetPDF, "cards": sheet.Cards, "cards.pdf": sheet.CardsPDF, "handout": sheet.Handout, "handout.pdf": sheet.HandoutPDF} {
		club.Get("/sessions/:session/"+path, paper)
	}
	club.Get("/routines/:id/steps", phone.Alone)
	club.Get("/routines/:id/handout", sheet.Handout)
	club.Get("/routines/:id/handout.pdf", sheet.HandoutPDF)
}

// hand is what the board does under the hand, and what it is looked at for.
func hand(club, change shell.Routes) {
	change.Get("/sessions/:session/drag", board.Drag)
	club.Get("/sessions/:session/people", board.People)
	club.Get("/sessions/:session/moment", board.Moment)
	club.Get("/sessions/:session/better", board.Better)
	change.Post("/sessions/:session/better", board.TakeBetter)
	club.Get("/sessions/:session/history", board.History)
	club.Get("/sessions/:session/what-if", board.WhatIf)
	change.Post("/sessions/:session/what-if", board.TakeIf)
	change.Post("/sessions/:session/history", board.GoBack)
	change.Post("/sessions/:session/people", board.Put)
	change.Post("/sessions/:session/drop", board.Drop)
}

func sessions(club, change shell.Routes) {
	club.Get("/sessions/:session", board.Show)
	club.Get("/sessions/:session/sheet", sheet.Show)
	club.Get("/sessions/:session/live", board.Live)
	club.Get("/sessions/:session/told", board.Told)
	change.Post("/sessions/:session/words/:word", board.TakeIn)
	club.Get("/sessions/:session/links", board.Links)
	club.Get("/sessions/:session/codes", board.Codes)
	change.Post("/sessions/:session/links/:person", board.Renew)
	change.Post("/sessions/:session/season", board.SetSeason)
	change.Post("/sessions/:session/head", board.SetHead)
	change.Post("/sessions/:session/timing", board.SetTiming)
	change.Post("/sessions/:session/spare", board.SetSpare)
	change.Post("/sessions/:session/slack", board.SetSlack)
	change.Post("/sessions/:session/pace", board.SetPace)
	change.Post("/sessions/:session/notes", board.SeeNotes)
	change.Post("/sessions/:session/day", board.SetDay)
	change.Post("/sessions/:session/factor", board.SetFactor)
	change.Post("/sessions/:session/turn", board.SetTurn)
	change.Post("/sessions/:session/roles", board.SetRole)
	change.Post("/sessions/:session/facing", board.SetFacing)
	change.Post("/sessions/:session/bring", board.SetBring)
	change.Post("/sessions/:session/lists", board.AddList)
	change.Post("/sessions/:session/lists/:list", board.SetList)
	change.Post("/sessions/:session/lists/:list/write", board.WriteList)
	change.Post("/sessions/:session/fixed", board.SetFixed)
	change.Post("/sessions/:session/players", board.SetPlayer)
	change.Post("/sessions/:session/rulings", board.TakeRulings)
	change.Post("/sessions/:session/mend", board.Mend)
	change.Post("/sessions/:session/keep", board.Except)
	change.Post("/sessions/:session/build", board.Build)
	change.Post("/sessions/:session/undo", board.Undo)
	change.Post("/sessions/:session/redo", board.Redo)
	change.Get("/sessions/:session/publish", board.Preview)
	change.Post("/sessions/:session/publish", board.Publish)
	change.Post("/sessions/:session/withdraw", board.Withdraw)
	change.Post("/sessions/:session/routine", board.KeepRoutine)
	change.Post("/sessions/:session/put", board.PutRoutine)
	change.Post("/sessions/:session/remove", board.Remove)
	change.Post("/sessions/:session/restore", board.Restore)
	blocks(change)
}

// runs are a session while it runs, and what is learnt from it.
func runs(open, club, change shell.Routes) {
	open.Get("/pitch/keeper.js", pitch.Worker)
	open.Get("/pitch/field.js", pitch.Core)
	club.Get("/pitch/:session", pitch.Show)
	club.Get("/pitch/:session/plan.json", pitch.Plan)
	club.Get("/pitch/:session/live", pitch.Live)
	open.May(planner.ToRun).Post("/pitch/:session/press", pitch.Press)
	club.Get("/sessions/:session/log", log.Show)
	change.Post("/sessions/:session/log", log.Save)
	club.Get("/sessions/:session/tests", log.ShowTests)
	change.Post("/sessions/:session/tests", log.SaveTests)
	change.Post("/sessions/:session/tests/read", log.ReadGate)
	club.Get("/sessions/:session/log.csv", log.SaveLog)
	club.Get("/sessions/:session/log.json", log.SaveLog)
	club.Get("/sessions/:session/report", log.Report)
	for _, name := range []string{"csv", "json", "svg"} {
		club.Get("/week."+name, log.SaveWeek)
	}
	club.Get("/log", log.Book)
	club.Get("/week", log.Week)
	change.Post("/week/targets", log.AddTarget)
	change.Post("/week/targets/:id/remove", log.RemoveTarget)
	change.Post("/week/fill", log.Fill)
}

func blocks(change shell.Routes) {
	change.Post("/sessions/:session/hear", board.Hear)
	change.Post("/sessions/:session/write", board.Write)
	change.Get("/sessions/:session/words", board.ShowWords)
	change.Post("/sessions/:session/words", board.PutWords)
	change.Post("/sessions/:session/words/read", board.HearWords)
	change.Post("/sessions/:session/principle", board.AddPrinciple)
	change.Post("/sessions/:session/relist", board.Relist)
	change.Post("/sessions/:session/blocks/:block", board.SetBlock)
	change.Post("/sessions/:session/blocks/:block/said", board.SetSaid)
	change.Post("/sessions/:session/blocks/:block/write", board.Write)
	change.Post("/sessions/:session/blocks/:block/items", board.SetItem)
	change.Post("/sessions/:session/blocks/:block/dose", board.SetDose)
	change.Post("/sessions/:session/blocks/:block/describe", board.Describe)
	change.Post("/sessions/:session/blocks/:block/forms", board.PutForm)
	change.Post("/sessions/:session/blocks/:block/form", board.SetForm)
	change.Post("/sessions/:session/blocks/:block/group", board.SetGroup)
	change.Post("/sessions/:session/blocks/:block/priority", board.SetPriority)
	change.Post("/sessions/:session/blocks/:block/order", board.SetOrder)
	change.Post("/sessions/:session/blocks/:block/remove", board.RemoveBlock)
}

// links are what players and leaders see, without a sign-in: by the team's link, with a
// player picked there, or by their own.
func links(open shell.Routes) {
	open.Get("/r/keeper.js", phone.Worker)
	open.Get("/r/:token", phone.Squad)
	open.Get("/r/:token/calendar.ics", phone.Calendar)
	open.Get("/r/:token/picture/:code", phone.Picture)
	open.Get("/handed/:token", sheet.Handed)
	open.Get("/handed/:token/list.pdf", sheet.HandedPDF)
	open.Get("/handed/:token/steps", phone.Handed)
	open.Get("/handed/:token/picture/:code", phone.HandedPicture)
	open.Get("/r/:token/wall", phone.Wall)
	open.Get("/r/:token/wall/live", phone.Live)
	open.Get("/r/:token/wall/update", phone.Update)
	for _, way := range []string{"/r/:token/:player", "/r/:token/:player/:key"} {
		open.Get(way, phone.Mine)
		open.Get(way+"/calendar.ics", phone.Calendar)
		open.Get(way+"/live", phone.Live)
		open.Get(way+"/update", phone.Update)
		open.Post(way+"/say", phone.Say)
		open.Post(way+"/seen", phone.Seen)
		open.Get(way+"/manifest.webmanifest", phone.Manifest)
	}
}
