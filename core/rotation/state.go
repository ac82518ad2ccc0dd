package rotation

import (
	"container/heap"
)

// event is something that ends.
type event struct {
	at  float64
	seq int // of equal times the first planned comes first
	do  func()
}

type queue []event

func (q queue) Len() int { return len(q) }
func (q queue) Less(i, j int) bool {
	return q[i].at < q[j].at || q[i].at == q[j].at && q[i].seq < q[j].seq
}
func (q queue) Swap(i, j int) { q[i], q[j] = q[j], q[i] }
func (q *queue) Push(x any)   { *q = append(*q, x.(event)) }
func (q *queue) Pop() any {
	old := *q
	x := old[len(old)-1]
	*q = old[:len(old)-1]
	return x
}

// set is a set of packs.
type set struct {
	ready   bool
	readyAt float64
	landed  float64 // when it came back
	since   float64 // when it began to wait for a channel
	waiting int     // packs that wait for a channel
	packs   int     // that are not full yet
	wh      float64 // each gave
}

// craft is an aircraft.
type craft struct {
	busy  bool
	since float64 // when it was ready for the next

}

// state is a day while it passes.
type state struct {
	d      Day
	now    float64
	events queue
	seq    int
	craft  []craft
	sets   []set
	charge []int // sets in the order in which they wait for a channel
	free   int   // channels
	watts  float64
	hands  int
	next   int // sortie
	run    Run
	over   bool
}

func newState(d Day) *state {
	s := &state{d: d, craft: make([]craft, d.Aircraft), sets: make([]set, d.Sets), free: d.Channels, hands: d.Hands}
	for i := range s.sets {
		s.sets[i].ready = true
	}
	s.run.Line, s.run.WaitedS = []Stretch{}, map[Cause]float64{ForPacks: 0, ForHands: 0}
	return s
}

func (s *state) after(seconds float64, do func()) {
	s.seq++
	heap.Push(&s.events, event{s.now + seconds, s.seq, do})
}

// step lets the next things happen: all that end at the same time, together.
func (s *state) step() bool {
	if s.events.Len() == 0 {
		return false
	}
	s.now = s.events[0].at
	for s.events.Len() > 0 && s.events[0].at == s.now {
		heap.Pop(&s.events).(event).do()
	}
	return true
}

// dispatch gives what is free to who waits.
func (s *state) dispatch() {
	for s.startCharge() || s.serve() {
	}
}

// startCharge puts the next pack that waits on a free channel, if the generator
// bears one more.
func (s *state) startCharge() bool {
	if len(s.charge) == 0 || s.free == 0 || s.d.ChannelW <= 0 || s.d.GeneratorW > 0 &&
		s.watts+s.d.ChannelW > s.d.GeneratorW {
		return false
	}
	i := s.charge[0]
	x := &s.sets[i]
	if x.waiting == s.d.PerSet && s.now > x.since {
		s.line(Stretch{Of: "set", Number: i, Doing: Queueing, From: x.since, To: s.now})
	}
	if s.next < len(s.d.Sorties) { // afterwards nobody waits for it today
		s.run.QueueS += (s.now - x.since) / float64(s.d.PerSet)
	}
	seconds, err := s.d.chargeSeconds(x.wh)
	if err != nil {
		return false
	}
	if x.waiting--; x.waiting == 0 {
		s.charge = s.charge[1:]
	}
	s.free--
	s.watts += s.d.ChannelW
	from := s.now
	s.after(seconds, func() {
		s.free++
		s.watts -= s.d.ChannelW
		if x.packs--; x.packs == 0 {
			x.ready, x.readyAt = true, s.now
			s.line(Stretch{Of: "set", Number: i, Doing: Charging, From: from, To: s.now})
		}
	})
	return true
}

// serve sends the aircraft that has waited longest on its next flight, when a set
// and a hand are there.
func (s *state) serve() bool {
	if s.next >= len(s.d.Sorties) {
		return false
	}
	who := -1
	for i, c := range s.craft {
		if !c.busy && (who < 0 || c.since < s.craft[who].since) {
			who = i
		}
	}
	if who < 0 {
		return false
	}
	with := -1
	for i, x := range s.sets {
		if x.ready && (with < 0 || x.landed < s.sets[with].landed) {
			with = i
		}
	}
	c := &s.craft[who]
	if with < 0 {
		return false
	}
	if s.hands == 0 {
		return false
	}
	f := s.d.Sorties[s.next]
	swap, fill, need := s.d.SwapS, 0.0, 1
	if f.Fill {
		fill = s.d.FillS
		if s.hands > 1 && fill > 0 {
			need = 2
		}
	}
	busy := swap + fill
	if need == 2 {
		busy = longest(swap, fill)
	}
	if s.d.DayS > 0 && s.now+busy+f.Seconds > s.d.DayS {
		s.over = true
		return false // it would not be back before the day is over
	}
	s.waited(who, c.since, with)
	sortie := s.next + 1
	s.next++
	s.hands -= need
	c.busy, s.sets[with].ready = true, false
	from := s.now
	s.line(Stretch{Of: "aircraft", Number: who, Doing: Swapping, From: from, To: from + swap, Sortie: sortie})
	if fill > 0 {
		s.line(Stretch{
			Of: "aircraft", Number: who, Doing: Filling, From: from + busy - fill, To: from + busy, Sortie: sortie,
		})
	}
	s.after(busy, func() {
		s.hands += need
		off := s.now
		s.after(f.Seconds, func() { s.land(who, with, sortie, off, f) })
	})
	return true
}

// waited books what an aircraft waited for: for packs until the set that it takes
// was there, then for hands.
func (s *state) waited(who int, since float64, with int) {
	ready := min(max(since, s.sets[with].readyAt), s.now)
	if ready > since {
		s.line(Stretch{Of: "aircraft", Number: who, Doing: WaitPacks, From: since, To: ready})
		s.run.WaitedS[ForPacks] += ready - since
	}
	if s.now > ready {
		s.line(Stretch{Of: "aircraft", Number: who, Doing: WaitHands, From: ready, To: s.now})
		s.run.WaitedS[ForHands] += s.now - ready
	}
}

// land brings an aircraft and its packs back.
func (s *state) land(who, with, sortie int, off float64, f Sortie) {
	s.line(Stretch{Of: "aircraft", Number: who, Doing: Flying, From: off, To: s.now, Sortie: sortie})
	s.line(Stretch{Of: "set", Number: with, Doing: Flying, From: off, To: s.now, Sortie: sortie})
	s.run.Flown++
	s.run.Done += f.Done
	s.run.EndS = s.now
	s.craft[who] = craft{since: s.now}
	x := &s.sets[with]
	x.landed, x.wh, x.packs, x.waiting = s.now, f.Wh/float64(s.d.PerSet), s.d.PerSet, s.d.PerSet
	if s.d.CoolS > 0 {
		s.line(Stretch{Of: "set", Number: with, Doing: Cooling, From: s.now, To: s.now + s.d.CoolS})
	}
	s.after(s.d.CoolS, func() {
		x.since = s.now
		s.charge = append(s.charge, with)
	})
}

// line draws a stretch of the timeline; inside numbers count from 0, there from 1.
func (s *state) line(x Stretch) {
	x.Number++
	s.run.Line = append(s.run.Line, x)
}
