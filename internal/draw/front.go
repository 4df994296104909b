package draw

import "math"

// FrontView is a bike from the front, to the scale of its sheet: a neutral outline
// by its own measures, standing on the ground.
type FrontView struct {
	Style Style
	Parts []SidePart
	Width N
}

// Usual half widths, mm, of what no sheet has.
const (
	halfFork   = 95.0
	halfEngine = 205.0
	halfTank   = 150.0
	halfLamp   = 80.0
	halfPegs   = 290.0
)

// across is how wide the front view is, mm: the bars, and room beside them.
func (b Silhouette) across() float64 { return or(b.BarWidthMM, 820) + 140 }

// Front draws a bike from the front with its middle at centre, on the sheet's
// scale and ground; ok is false when its main measures are missing.
func (s Sheet) Front(b Silhouette, centre N, style Style) (view FrontView, ok bool) {
	if !b.whole() {
		return view, false
	}
	k := b.skeleton()
	sheet := s.about(centre)
	view.Style, view.Width = style, N(b.across()*s.scale)
	part := func(name string, p *pen) { view.Parts = append(view.Parts, SidePart{name, p.path()}) }
	start := func() *pen { return &pen{sheet: sheet} }
	// both draws a line and its mirror image.
	both := func(draw func(p *pen, side float64)) *pen {
		p := start()
		draw(p, 1)
		draw(p, -1)
		return p
	}
	half := or(b.FrontTyreWidthMM, 100) / 2
	bar := or(b.BarWidthMM, 820) / 2
	top := 2 * k.rf
	part("tyre", start().move(-half, half).curve(-half, 0, half, 0, half, half).line(half, top-half).curve(half, top, -half, top, -half, top-half).close())
	part("fork", both(func(p *pen, x float64) { p.move(x*halfFork, k.rf).line(x*halfFork, k.headHigh) }))
	part("frame", start().move(-halfFork-20, k.headLow).line(halfFork+20, k.headLow).move(-halfFork-20, k.headHigh).line(halfFork+20, k.headHigh))
	engineTop := math.Min(k.bottom+380, k.seat-170)
	part("engine", start().move(-halfEngine+70, k.bottom).line(halfEngine-70, k.bottom).line(halfEngine, k.bottom+80).line(halfEngine, k.bottom+200).
		line(halfEngine-90, engineTop).line(-halfEngine+90, engineTop).line(-halfEngine, k.bottom+200).line(-halfEngine, k.bottom+80).close())
	tankTop := math.Min(k.seat+150, k.bar-60)
	part("tank", both(func(p *pen, x float64) {
		p.move(x*(halfFork+25), k.seat-130).curve(x*halfTank*1.2, k.seat-60, x*halfTank, tankTop-20, x*60, tankTop)
	}))
	part("bar", start().move(-bar, k.bar).line(-bar+170, k.bar).line(-90, k.headHigh+30).line(90, k.headHigh+30).line(bar-170, k.bar).line(bar, k.bar))
	part("peg", both(func(p *pen, x float64) { p.move(x*(halfEngine-20), k.peg).line(x*halfPegs, k.peg) }))
	lamp := k.headHigh - 75
	part("lamp", start().move(-halfLamp, lamp).curve(-halfLamp, lamp+105, halfLamp, lamp+105, halfLamp, lamp).curve(halfLamp, lamp-105, -halfLamp, lamp-105, -halfLamp, lamp).close())
	part("mudguard", start().move(-half-22, top-130).curve(-half-22, top+45, half+22, top+45, half+22, top-130))
	if b.Faired || b.Screen {
		part("body", both(func(p *pen, x float64) {
			p.move(0, k.bar+150).curve(x*170, k.bar+120, x*230, k.headHigh, x*190, k.headLow)
		}))
	}
	return view, true
}

// about is the sheet with its origin elsewhere across.
func (s Sheet) about(x N) Sheet {
	s.originX = float64(x)
	return s
}
