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
	club.GET("/sessions/new", s.newSession)
	club.POST("/sessions", s.addSession)

	session := club.Group("/sessions/:session")
	session.GET("", s.board)
	session.GET("/sheet", s.sheet)
	session.POST("/timing", s.setTiming)
	session.POST("/blocks", s.addBlock)
	session.POST("/blocks/:block/dose", s.setDose)
	session.POST("/blocks/:block/priority", s.setPriority)
	session.POST("/blocks/:block/order", s.setOrder)
	session.POST("/blocks/:block/remove", s.removeBlock)
	session.POST("/spare", s.setSpare)
	session.POST("/mend", s.mend)
	session.POST("/keep", s.keep)
	session.POST("/undo", s.undo)
	session.POST("/redo", s.redo)
	session.POST("/publish", s.publish)
	session.POST("/withdraw", s.withdraw)

	// What a link shows, without a sign-in.
	r.GET("/r/:token", s.sharedSquad)
	r.GET("/r/:token/:player", s.mine)

	r.NoRoute(func(c *gin.Context) { s.notFound(c) })
	r.NoMethod(func(c *gin.Context) { s.notFound(c) })
}
