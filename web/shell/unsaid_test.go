package shell

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"cuestart/core/plan"
)

// What is refused is said, where the page has no place for it over the page.
func TestNothingIsRefusedWithoutASentence(t *testing.T) {
	p := &Page{wrong: plan.Problems{{Where: "nowhere", What: "it's <full>"}, {Where: "name", What: "too long"}}}
	assert.Equal(t,
		`<header>x</header><main id="m"><p class="problem problem-over" role="alert">it&#39;s &lt;full&gt;</p><p>too long</p></main>`,
		p.unsaid(`<header>x</header><main id="m"><p>too long</p></main>`))
	assert.Equal(t, `<p>it&#39;s &lt;full&gt; and too long</p>`, p.unsaid(`<p>it&#39;s &lt;full&gt; and too long</p>`))
	p.wrong = plan.Problems{{What: "gone"}}
	assert.Equal(t, `<div><p class="problem problem-over" role="alert">gone</p></div>`, p.unsaid(`<div></div>`),
		"a part of a page")
}
