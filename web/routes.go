package web

import (
	"net/http"

	"github.com/gin-gonic/gin"
)

// routes is the map of the site.
func (s *Site) routes(r *gin.Engine) {
	r.GET("/assets/:version/*file", s.asset)
	r.GET("/healthz", s.health)
	r.POST("/look", s.setLook)

	r.GET("/", func(c *gin.Context) { c.Redirect(http.StatusSeeOther, "/today") })
	r.GET("/welcome", s.welcome)
	r.POST("/welcome", s.found)
	r.GET("/sign-in", s.signIn)
	r.POST("/sign-in", s.guard.slow, s.enter)
	r.POST("/sign-out", s.leave)

	club := r.Group("/", s.signedIn)
	club.GET("/today", s.today)

	club.POST("/take-back", s.takeBack)

	club.GET("/drills", s.drills)
	change := club.Group("/", s.coaches)
	change.GET("/sessions/new", s.newSession)
	change.GET("/sessions/new/day", s.newDay)
	change.POST("/sessions", s.addSession)
	change.GET("/drills/:code/edit", s.editDrill)
	change.POST("/drills/:code", s.saveDrill)
	change.POST("/drills/:code/remove", s.removeDrill)
	change.POST("/drills/:code/reset", s.resetDrill)

	club.GET("/squad", s.squad)
	change.POST("/squads", s.addSquad)
	change.POST("/squad/:squad/players", s.savePlayer)
	change.POST("/squad/:squad/players/:id/remove", s.removePlayer)
	change.POST("/squad/:squad/units", s.saveUnit)
	club.POST("/squad/:squad/rulings/:player", s.saveRuling)
	club.POST("/rulings/:id/lift", s.liftRuling)

	club.GET("/ground", s.ground)
	change.POST("/ground/:kind", s.saveGround)
	change.POST("/ground/:kind/:id/remove", s.removeGround)
	change.POST("/invite", s.invite)
	change.GET("/sport", s.sport)
	change.POST("/sport", s.saveSport)
	change.POST("/sport/reset", s.resetSport)

	change.GET("/import", s.importForm)
	change.POST("/import", s.importFile)
	club.GET("/export/squad.csv", s.exportSquad)
	club.GET("/export/tests.csv", s.exportTests)
	club.GET("/export/fixtures.csv", s.exportFixtures)
	club.GET("/export/drills.csv", s.exportDrills)

	club.GET("/routines", s.routines)
	club.GET("/routines/:id/routine.json", s.exportRoutine)
	change.POST("/routines/:id/slot", s.saveSlot)
	change.POST("/routines/:id/remove", s.removeRoutine)

	session := club.Group("/sessions/:session", s.coachesWrite)
	session.GET("", s.board)
	session.GET("/sheet", s.sheet)
	session.GET("/plan.json", s.exportPlan)
	session.POST("/timing", s.setTiming)
	session.POST("/head", s.setHead)
	session.POST("/remove", s.removeSession)
	session.POST("/restore", s.restoreSession)
	session.POST("/blocks", s.addBlock)
	session.POST("/blocks/:block", s.setBlock)
	session.POST("/blocks/:block/items", s.addItem)
	session.POST("/blocks/:block/items/remove", s.removeItem)
	session.POST("/blocks/:block/dose", s.setDose)
	session.POST("/blocks/:block/priority", s.setPriority)
	session.POST("/blocks/:block/order", s.setOrder)
	session.POST("/blocks/:block/remove", s.removeBlock)
	session.POST("/fixed", s.setFixed)
	session.POST("/players", s.setPlayer)
	session.POST("/rulings", s.takeRulings)
	session.POST("/spare", s.setSpare)
	session.POST("/day", s.setDay)
	session.POST("/factor", s.setFactor)
	session.POST("/routine", s.keepRoutine)
	session.POST("/mend", s.mend)
	session.POST("/keep", s.keep)
	session.POST("/undo", s.undo)
	session.POST("/redo", s.redo)
	session.POST("/publish", s.publish)
	session.POST("/withdraw", s.withdraw)

	// What a link shows, without a sign-in.
	r.GET("/join/:token", s.invited)
	r.POST("/join/:token", s.join)
	r.GET("/r/:token", s.sharedSquad)
	r.GET("/r/:token/:player", s.mine)

	r.NoRoute(func(c *gin.Context) { s.notFound(c) })
	r.NoMethod(func(c *gin.Context) { s.notFound(c) })
}
