package shell

import (
	"mime/multipart"
	"net/url"
	"strconv"

	"github.com/gin-gonic/gin"
)

// asks is what a browser asks for: an address, what stands in it and what is sent along.
type asks struct{ gin *gin.Context }

// Path is what is asked for.
func (r asks) Path() string { return r.gin.Request.URL.Path }

// Param is a part of the path, by its name there.
func (r asks) Param(name string) string { return r.gin.Param(name) }

// ParamID is a part of the path that is an id; 0, which nothing has, if it is none.
func (r asks) ParamID(name string) uint64 { return readID(r.gin.Param(name)) }

// Query is what the address asks for, "" where it does not say.
func (r asks) Query(name string) string { return r.gin.Query(name) }

// QueryCount is what the address asks for as a number; 0 if it is none.
func (r asks) QueryCount(name string) int {
	n, _ := strconv.Atoi(r.gin.Query(name))
	return max(0, n)
}

// QueryID is what the address asks for as an id; 0, which nothing has, if it is none.
func (r asks) QueryID(name string) uint64 { return readID(r.gin.Query(name)) }

// Asked is everything that the address asks for.
func (r asks) Asked() url.Values { return r.gin.Request.URL.Query() }

// Wants tells whether the page's script asks for that part of it alone.
func (r asks) Wants(part string) bool { return part != "" && r.gin.GetHeader(partHeader) == part }

// Header is what the page's script says under a name, or "".
func (r asks) Header(name string) string { return r.gin.GetHeader(name) }

// Cookie is what the browser keeps under a name, or "".
func (r asks) Cookie(name string) string {
	value, _ := r.gin.Cookie(name)
	return value
}

// File is a file of the form.
func (r asks) File(name string) (*multipart.FileHeader, error) { return r.gin.FormFile(name) }

// partHeader names a part of a page, in a question and in its answer.
const partHeader = "X-Part"

// readID reads an id; 0, which nothing has, if it is none.
func readID(text string) uint64 {
	n, _ := strconv.ParseUint(text, 10, 64)
	return n
}
