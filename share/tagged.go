package share

import (
	"bytes"
	"fmt"
	"sync"

	"github.com/pdfcpu/pdfcpu/pkg/api"
	"github.com/pdfcpu/pdfcpu/pkg/pdfcpu/model"
	"github.com/pdfcpu/pdfcpu/pkg/pdfcpu/types"
)

// tag is an element of a document's structure (ISO 32000-1, 14.7): what kind it is, and
// either its marked piece on a page or the elements within it.
type tag struct {
	kind       string
	page, mark int // page 0: it holds others
	within     []*tag
}

// inside puts what is drawn into an element.
func (p *Paper) inside(kind string, draw func()) {
	outer := p.within
	p.within = &tag{kind: kind}
	outer.within = append(outer.within, p.within)
	draw()
	p.within = outer
}

// mark tags what is drawn, all of it on one page.
func (p *Paper) mark(kind string, draw func()) {
	page := p.pdf.PageNo()
	mark := p.marks[page]
	p.marks[page]++
	p.within.within = append(p.within.within, &tag{kind: kind, page: page, mark: mark})
	p.pdf.RawWriteStr(fmt.Sprintf("/%s <</MCID %d>> BDC\n", kind, mark))
	draw()
	p.pdf.RawWriteStr("EMC\n")
}

// artifact draws what nobody reads: rules, frames, the foot of a page.
func (p *Paper) artifact(draw func()) {
	p.pdf.RawWriteStr("/Artifact BMC\n")
	draw()
	p.pdf.RawWriteStr("EMC\n")
}

var noConfig = sync.OnceFunc(api.DisableConfigDir) // it would make a folder in the user's home

// tagged puts the structure into a document.
func (p *Paper) tagged(plain []byte) ([]byte, error) {
	noConfig()
	config := model.NewDefaultConfiguration()
	config.Optimize = false
	ctx, err := api.ReadContext(bytes.NewReader(plain), config)
	if err == nil {
		err = ctx.EnsurePageCount()
	}
	if err == nil {
		err = p.structure(ctx)
	}
	var made bytes.Buffer
	if err == nil {
		err = api.WriteContext(ctx, &made)
	}
	if err != nil {
		return nil, fmt.Errorf("the paper cannot be tagged: %w", err)
	}
	return made.Bytes(), nil
}

// structure writes the tree of elements, and for each page the elements of its pieces.
func (p *Paper) structure(ctx *model.Context) error {
	catalog, err := ctx.Catalog()
	if err != nil {
		return err
	}
	root := types.Dict{"Type": types.Name("StructTreeRoot")}
	at, err := ctx.IndRefForNewObject(root)
	if err != nil {
		return err
	}
	w := writing{ctx: ctx, pages: map[int]*types.IndirectRef{}, pieces: map[int]types.Array{}}
	for page := 1; page <= ctx.PageCount; page++ {
		dict, ref, _, err := ctx.PageDict(page, false)
		if err != nil {
			return err
		}
		dict["StructParents"], dict["Tabs"] = types.Integer(page-1), types.Name("S")
		w.pages[page], w.pieces[page] = ref, make(types.Array, p.marks[page])
	}
	whole, err := w.element(p.root, *at)
	if err != nil {
		return err
	}
	var numbers types.Array
	for page := 1; page <= ctx.PageCount; page++ {
		ref, err := ctx.IndRefForNewObject(w.pieces[page])
		if err != nil {
			return err
		}
		numbers = append(numbers, types.Integer(page-1), *ref)
	}
	parents, err := ctx.IndRefForNewObject(types.Dict{"Nums": numbers})
	if err != nil {
		return err
	}
	root["K"], root["ParentTree"], root["ParentTreeNextKey"] = types.Array{*whole}, *parents,
		types.Integer(ctx.PageCount)
	catalog["StructTreeRoot"], catalog["MarkInfo"] = *at, types.Dict{"Marked": types.Boolean(true)}
	catalog["Lang"] = types.StringLiteral(p.in.Code)
	catalog["ViewerPreferences"] = types.Dict{"DisplayDocTitle": types.Boolean(true)}
	return nil
}

// writing is a structure on its way into a file.
type writing struct {
	ctx    *model.Context
	pages  map[int]*types.IndirectRef
	pieces map[int]types.Array // by page the elements of its marked pieces
}

func (w *writing) element(t *tag, parent types.IndirectRef) (*types.IndirectRef, error) {
	dict := types.Dict{"Type": types.Name("StructElem"), "S": types.Name(t.kind), "P": parent}
	ref, err := w.ctx.IndRefForNewObject(dict)
	if err != nil {
		return nil, err
	}
	if t.page > 0 {
		dict["Pg"], dict["K"] = *w.pages[t.page], types.Integer(t.mark)
		w.pieces[t.page][t.mark] = *ref
		if t.kind == "TH" {
			dict["A"] = types.Dict{"O": types.Name("Table"), "Scope": types.Name("Column")}
		}
		return ref, nil
	}
	var kids types.Array
	for _, kid := range t.within {
		at, err := w.element(kid, *ref)
		if err != nil {
			return nil, err
		}
		kids = append(kids, *at)
	}
	dict["K"] = kids
	return ref, nil
}
