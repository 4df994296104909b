package parts

import (
	"slices"
	"strings"

	"valiantmule/internal/core/entry"
)

// Tag is what one thing provides and another needs. Most are of a table. What belongs
// to a kind of bikes says so after a colon, "frame: Holt 650", in the words of whoever
// made the part or has the bike.

// TagInfo is a tag of the table: how it is called as something that is needed, and
// the slots whose parts may provide it.
type TagInfo struct {
	Tag, Words string
	By         []Slot // nobody: it is of the bike
	Usual      []Slot // whose parts do so by what they are, until somebody says otherwise
	Fed        bool   // only those that draw
	Added      bool   // only those that did not come with the bike
}

var tags = [...]TagInfo{
	{Tag: "bar-22", Words: "a bar of 22.2 mm", By: []Slot{Handlebar}},
	{Tag: "bar-28", Words: "a bar of 28.6 mm", By: []Slot{Handlebar}},
	{Tag: "clamp-22", Words: "clamps for a 22.2 mm bar", By: []Slot{Risers}},
	{Tag: "clamp-28", Words: "clamps for a 28.6 mm bar", By: []Slot{Risers}},
	{Tag: "damped-bar", Words: "a damped or flexible bar", By: []Slot{Handlebar, Risers}},
	{Tag: "bar-ends", Words: "open ends of the bar", By: []Slot{HandGuards}},
	{Tag: "warm-hands", Words: "warm hands", By: []Slot{Grips, HandGuards}, Usual: []Slot{Grips}, Fed: true},
	{Tag: "damped-grips", Words: "soft grips", By: []Slot{Grips}},
	{Tag: "bolt-on-grips", Words: "grips that bolt on", By: []Slot{Grips}},
	{Tag: "grip-sleeves", Words: "sleeves over the grips that are there", By: []Slot{Grips}},
	{Tag: "with-tube", Words: "their own throttle tube", By: []Slot{Grips}},
	{Tag: "folding-levers", Words: "levers that fold", By: []Slot{Levers}},
	{Tag: "short-levers", Words: "short levers", By: []Slot{Levers}},
	{Tag: "adjustable-levers", Words: "levers that come to the hand", By: []Slot{Levers}},
	{Tag: "own-seat", Words: "a seat for its rider", By: []Slot{Seat}},
	{Tag: "wide-pegs", Words: "toothed pegs", By: []Slot{Pegs}, Usual: []Slot{Pegs}, Added: true},
	{Tag: "damped-pegs", Words: "damped pegs", By: []Slot{Pegs}},
	{Tag: "knee-grip", Words: "grip for knees and calves", By: []Slot{KneeGrip, TankGuard, FrameGuards}, Usual: []Slot{KneeGrip}},
	{Tag: "tall-screen", Words: "a tall screen", By: []Slot{Windscreen}},
	{Tag: "tower", Words: "a tower", By: []Slot{Windscreen}},
	{Tag: "nav-place", Words: "a mount to sit on", By: []Slot{NavMount, Windscreen}, Usual: []Slot{NavMount}},
	{Tag: "damped-mount", Words: "a damped mount", By: []Slot{NavMount}},
	{Tag: "navigation", Words: "navigation", By: []Slot{Navigator}, Usual: []Slot{Navigator}},
	{Tag: "paper", Words: "paper", By: []Slot{Navigator}},
	{Tag: "shaken-camera", Words: "a camera that shaking breaks", By: []Slot{Navigator}},
	{Tag: "draws-power", Words: "something that is fed all day", By: []Slot{Grips, Navigator}, Usual: []Slot{Grips, Navigator}, Fed: true},
	{Tag: "socket", Words: "a charging socket", By: []Slot{Socket}, Usual: []Slot{Socket}},
	{Tag: "unswitched", Words: "a feed that is always on", By: []Slot{Socket}},
	{Tag: "raised-mudguard", Words: "a raised mudguard", By: []Slot{FrontMudguard}},
	{Tag: "wraps-cases", Words: "the sides of the cases", By: []Slot{SkidPlate}},
	{Tag: "engine-bars", Words: "engine bars to hang on", By: []Slot{EngineBars}, Usual: []Slot{EngineBars}},
	{Tag: "seen-by-day", Words: "lamps to be seen by", By: []Slot{DayLamps, AuxLamps, WideLamps, Headlamp}, Usual: []Slot{DayLamps}},
	{Tag: "lithium", Words: "a lithium battery", By: []Slot{Battery}},
	{Tag: "fork-valves", Words: "air valves in the fork caps", By: []Slot{ForkCaps, Fork}},
	{Tag: "keeps-spring", Words: "the spring that was in it before", By: []Slot{Fork, Shock}},
	{Tag: "thicker-oil", Words: "thicker fork oil", By: []Slot{ForkOil}},
	{Tag: "led-indicators", Words: "indicators of light-emitting diodes", By: []Slot{Indicators}},
	{Tag: "flasher", Words: "a flasher that does not mind the load", By: []Slot{Indicators}},
	{Tag: "with-main-beam", Words: "lamps that follow the main beam", By: []Slot{LampControl}},
	{Tag: "dark-beside-indicator", Words: "lamps that go dark beside a working indicator", By: []Slot{LampControl}},
	{Tag: "brake-flash", Words: "a brake lamp that flashes", By: []Slot{BrakeLamp}},
	{Tag: "lithium-charge", Words: "a regulator that suits lithium", By: []Slot{Regulator}},
	{Tag: "short-plate", Words: "a short plate holder", By: []Slot{PlateHolder}},
	{Tag: "rear-rack", Words: "a rear rack to stand on", By: []Slot{RearRack}, Usual: []Slot{RearRack}},
	{Tag: "side-rack", Words: "a side rack to hang on", By: []Slot{SideRack}, Usual: []Slot{SideRack}},
	{Tag: "heat-shield", Words: "a shield against the exhaust", By: []Slot{SideRack, SideBags}},
	{Tag: "hard-slider", Words: "a slider of hard material", By: []Slot{ChainSlider}},
	{Tag: "speedometer-corrected", Words: "a corrected speedometer", By: []Slot{Speedometer}, Usual: []Slot{Speedometer}},
	{Tag: "balanced-front", Words: "a balanced front wheel", By: []Slot{FrontLock, FrontWheel, FrontTyre}},
	{Tag: "balanced-rear", Words: "a balanced rear wheel", By: []Slot{RearLock, RearWheel, RearTyre}},
	{Tag: "mends-tubes", Words: "what mends tubes", By: []Slot{TyreKit}, Usual: []Slot{TyreKit}},
	{Tag: "mends-tubeless", Words: "what mends tubeless tyres", By: []Slot{TyreKit}},
	{Tag: "quiet", Words: "a quiet silencer", By: []Slot{Silencer}},
	{Tag: "waits-on-the-way", Words: "a place on the way where it waits", By: []Slot{SpareFront, SpareRear}},
	{Tag: "radiator", Words: "a radiator"},
	{Tag: "oil-cooler", Words: "an oil cooler"},
	{Tag: "chain-drive", Words: "a chain"},
	{Tag: "speedometer-pulse", Words: "a speedometer that counts pulses"},
}

// families are what belongs to a kind of bikes, by what stands before the colon.
var families = map[string]string{
	"frame": "the mounts of the frame of ", "output shaft": "the output shaft of ", "sprocket hub": "the sprocket hub of ",
	"wheel spindles": "the wheel spindles of ", "chain": "a chain ",
}

// Families lists what the tags of a bike's own kind start with.
func Families() []string { return []string{"frame", "output shaft", "sprocket hub", "wheel spindles"} }

// TagWords is how a tag is called as something that is needed; one of nobody's table
// is in words already.
func TagWords(tag string) string {
	for _, info := range tags {
		if info.Tag == tag {
			return info.Words
		}
	}
	if kind, name, ok := strings.Cut(tag, ": "); ok && families[kind] != "" {
		return families[kind] + name
	}
	return tag
}

// Gives reports whether the part provides a tag; usual is true where nobody has said so of a
// part that is [Part.Told], and such parts do.
func (p *Part) Gives(tag string) (gives, usual bool) {
	if slices.Contains(p.Provides, tag) {
		return true, false
	}
	if slices.Contains(p.Without, tag) {
		return false, false
	}
	usual = p.usuallyGives(tag)
	return usual, usual
}

// GivesAny reports whether the part provides any tag.
func (p *Part) GivesAny() bool {
	if len(p.Provides) > 0 {
		return true
	}
	for tag := range usually {
		if gives, _ := p.Gives(tag); gives {
			return true
		}
	}
	return false
}

// usuallyGives reports whether the part provides a tag by what it is.
func (p *Part) usuallyGives(tag string) bool {
	info := usually[tag]
	if info == nil || !slices.Contains(info.Usual, p.Slot) || p.ID != "" && !p.Told() { // one without is still being told
		return false
	}
	return !(info.Added && strings.HasPrefix(p.ID, StandardPrefix)) && !(info.Fed && !(Draw.In(p).Base() > 0))
}

// usually are the tags that some parts provide by what they are.
var usually = func() map[string]*TagInfo {
	by := map[string]*TagInfo{}
	for i := range tags {
		if tags[i].Usual != nil {
			by[tags[i].Tag] = &tags[i]
		}
	}
	return by
}()

// UsuallyBy are the slots whose parts provide a tag by what they are, nil for most tags.
func UsuallyBy(tag string) []Slot {
	if info := usually[tag]; info != nil {
		return info.Usual
	}
	return nil
}

// TagsBy lists what parts of a slot may provide, or with "" what a bike may.
func TagsBy(s Slot) []entry.Option {
	var list []entry.Option
	for _, info := range tags {
		if s == "" && info.By == nil || slices.Contains(info.By, s) {
			list = append(list, entry.Option{Value: info.Tag, Name: info.Words})
		}
	}
	return list
}

// KnownTags lists every tag of the table.
func KnownTags() []entry.Option {
	list := make([]entry.Option, len(tags))
	for i, info := range tags {
		list[i] = entry.Option{Value: info.Tag, Name: info.Words}
	}
	return list
}
