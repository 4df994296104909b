package ready

import "valiantmule/internal/core/parts"

// bySlot is jobs by the slot that they have to do with: of each kind of part the last one, and before each the one
// before it.
type bySlot struct {
	last []int16 // at all, from 1; 0 for none
	all  []struct{ job, before int16 }
}

func newBySlot() bySlot { return bySlot{last: make([]int16, len(parts.Kinds()))} }

// put notes a job at a slot; −1 is none.
func (b *bySlot) put(s parts.Slot, job int) {
	if i := s.Index(); i >= 0 && job >= 0 {
		b.all = append(b.all, struct{ job, before int16 }{int16(job), b.last[i]})
		b.last[i] = int16(len(b.all))
	}
}

// at adds the jobs of a kind to a list.
func (b *bySlot) at(kind int, list []int) []int {
	for k := b.last[kind]; k > 0; k = b.all[k-1].before {
		list = append(list, int(b.all[k-1].job))
	}
	return list
}

// of adds the jobs of some slots to a list.
func (b *bySlot) of(list []int, slots ...parts.Slot) []int {
	for _, s := range slots {
		if i := s.Index(); i >= 0 {
			list = b.at(i, list)
		}
	}
	return list
}
