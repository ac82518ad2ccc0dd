package pack

import "slices"

// matcher finds a matching of greatest weight in a general graph by the
// blossom method with duals (Edmonds 1965; Galil, ACM Computing Surveys 18
// (1986) 23-38), in O(n^3) on a dense matrix. Vertices count from 1 inside, 0
// is none; numbers above n are blossoms.
type matcher struct {
	n, top   int
	g        [][]edge
	lab      []int64
	match    []int
	slack    []int
	st       []int // blossom in which a vertex lies
	pa       []int
	from     [][]int
	s        []int // 0 outer, 1 inner, -1 free
	vis      []int
	flower   [][]int
	queue    []int
	lcaStamp int
}

type edge struct {
	u, v int
	w    int64
}

func newMatcher(n int) *matcher {
	size := 2*n + 2
	m := &matcher{n: n, top: n, lab: make([]int64, size), match: make([]int, size), slack: make([]int, size),
		st: make([]int, size), pa: make([]int, size),
		s: make([]int, size), vis: make([]int, size), flower: make([][]int, size), from: make([][]int,
			size), g: make([][]edge, size)}
	for i := range size {
		m.g[i], m.from[i] = make([]edge, size), make([]int, n+1)
		for j := range size {
			m.g[i][j] = edge{i, j, 0}
		}
	}
	return m
}

// weight sets the weight, above zero, of the edge between two vertices counted
// from 0.
func (m *matcher) weight(i, j int, w int64) {
	m.g[i+1][j+1].w, m.g[j+1][i+1].w = w, w
}

// solve returns for each vertex its mate, or -1, counted from 0.
func (m *matcher) solve() []int {
	var most int64
	for u := 0; u <= m.n; u++ {
		m.st[u] = u
	}
	for u := 1; u <= m.n; u++ {
		for v := 1; v <= m.n; v++ {
			if u == v {
				m.from[u][v] = u
			}
			most = max(most, m.g[u][v].w)
		}
	}
	for u := 1; u <= m.n; u++ {
		m.lab[u] = most
	}
	for m.phase() {
	}
	out := make([]int, m.n)
	for u := 1; u <= m.n; u++ {
		out[u-1] = m.match[u] - 1
	}
	return out
}

func (m *matcher) delta(e edge) int64 { return m.lab[e.u] + m.lab[e.v] - m.g[e.u][e.v].w*2 }

func (m *matcher) updateSlack(u, x int) {
	if m.slack[x] == 0 || m.delta(m.g[u][x]) < m.delta(m.g[m.slack[x]][x]) {
		m.slack[x] = u
	}
}

func (m *matcher) setSlack(x int) {
	m.slack[x] = 0
	for u := 1; u <= m.n; u++ {
		if m.g[u][x].w > 0 && m.st[u] != x && m.s[m.st[u]] == 0 {
			m.updateSlack(u, x)
		}
	}
}

func (m *matcher) push(x int) {
	if x <= m.n {
		m.queue = append(m.queue, x)
		return
	}
	for _, y := range m.flower[x] {
		m.push(y)
	}
}

func (m *matcher) setSt(x, b int) {
	m.st[x] = b
	if x > m.n {
		for _, y := range m.flower[x] {
			m.setSt(y, b)
		}
	}
}

func (m *matcher) place(b, xr int) int {
	pr := slices.Index(m.flower[b], xr)
	if pr%2 == 1 {
		slices.Reverse(m.flower[b][1:])
		return len(m.flower[b]) - pr
	}
	return pr
}

func (m *matcher) setMatch(u, v int) {
	m.match[u] = m.g[u][v].v
	if u <= m.n {
		return
	}
	e := m.g[u][v]
	xr := m.from[u][e.u]
	pr := m.place(u, xr)
	for i := range pr {
		m.setMatch(m.flower[u][i], m.flower[u][i^1])
	}
	m.setMatch(xr, v)
	f := m.flower[u]
	m.flower[u] = append(slices.Clone(f[pr:]), f[:pr]...)
}

func (m *matcher) augment(u, v int) {
	for {
		next := m.st[m.match[u]]
		m.setMatch(u, v)
		if next == 0 {
			return
		}
		m.setMatch(next, m.st[m.pa[next]])
		u, v = m.st[m.pa[next]], next
	}
}

func (m *matcher) lca(u, v int) int {
	m.lcaStamp++
	for ; u != 0 || v != 0; u, v = v, u {
		if u == 0 {
			continue
		}
		if m.vis[u] == m.lcaStamp {
			return u
		}
		m.vis[u] = m.lcaStamp
		if u = m.st[m.match[u]]; u != 0 {
			u = m.st[m.pa[u]]
		}
	}
	return 0
}

func (m *matcher) addBlossom(u, lca, v int) {
	b := m.n + 1
	for b <= m.top && m.st[b] != 0 {
		b++
	}
	m.top = max(m.top, b)
	m.lab[b], m.s[b], m.match[b] = 0, 0, m.match[lca]
	f := []int{lca}
	arm := func(x int) {
		for x != lca {
			y := m.st[m.match[x]]
			f = append(f, x, y)
			m.push(y)
			x = m.st[m.pa[y]]
		}
	}
	arm(u)
	slices.Reverse(f[1:])
	arm(v)
	m.flower[b] = f
	m.setSt(b, b)
	for x := 1; x <= m.top; x++ {
		m.g[b][x].w, m.g[x][b].w = 0, 0
	}
	clear(m.from[b])
	for _, xs := range f {
		for x := 1; x <= m.top; x++ {
			if m.g[b][x].w == 0 || m.delta(m.g[xs][x]) < m.delta(m.g[b][x]) {
				m.g[b][x], m.g[x][b] = m.g[xs][x], m.g[x][xs]
			}
		}
		for x := 1; x <= m.n; x++ {
			if m.from[xs][x] != 0 {
				m.from[b][x] = xs
			}
		}
	}
	m.setSlack(b)
}

func (m *matcher) expand(b int) {
	for _, x := range m.flower[b] {
		m.setSt(x, x)
	}
	xr := m.from[b][m.g[b][m.pa[b]].u]
	pr := m.place(b, xr)
	f := m.flower[b]
	for i := 0; i < pr; i += 2 {
		xs, xn := f[i], f[i+1]
		m.pa[xs] = m.g[xn][xs].u
		m.s[xs], m.s[xn] = 1, 0
		m.slack[xs] = 0
		m.setSlack(xn)
		m.push(xn)
	}
	m.s[xr], m.pa[xr] = 1, m.pa[b]
	for _, xs := range f[pr+1:] {
		m.s[xs] = -1
		m.setSlack(xs)
	}
	m.st[b] = 0
}

func (m *matcher) tight(e edge) bool {
	u, v := m.st[e.u], m.st[e.v]
	switch m.s[v] {
	case -1:
		m.pa[v], m.s[v] = e.u, 1
		mate := m.st[m.match[v]]
		m.slack[v], m.slack[mate] = 0, 0
		m.s[mate] = 0
		m.push(mate)
	case 0:
		l := m.lca(u, v)
		if l == 0 {
			m.augment(u, v)
			m.augment(v, u)
			return true
		}
		m.addBlossom(u, l, v)
	}
	return false
}

// phase grows one alternating forest until a path is found; false at the end.
func (m *matcher) phase() bool {
	for x := 1; x <= m.top; x++ {
		m.s[x], m.slack[x] = -1, 0
	}
	m.queue = m.queue[:0]
	for x := 1; x <= m.top; x++ {
		if m.st[x] == x && m.match[x] == 0 {
			m.pa[x], m.s[x] = 0, 0
			m.push(x)
		}
	}
	if len(m.queue) == 0 {
		return false
	}
	for {
		for len(m.queue) > 0 {
			u := m.queue[0]
			m.queue = m.queue[1:]
			if m.s[m.st[u]] == 1 {
				continue
			}
			for v := 1; v <= m.n; v++ {
				if m.g[u][v].w > 0 && m.st[u] != m.st[v] {
					if m.delta(m.g[u][v]) == 0 {
						if m.tight(m.g[u][v]) {
							return true
						}
					} else {
						m.updateSlack(u, m.st[v])
					}
				}
			}
		}
		if done := m.adjust(); done {
			return false
		}
		m.queue = m.queue[:0]
		for x := 1; x <= m.top; x++ {
			if m.st[x] == x && m.slack[x] != 0 && m.st[m.slack[x]] != x && m.delta(m.g[m.slack[x]][x]) == 0 &&
				m.tight(m.g[m.slack[x]][x]) {
				return true
			}
		}
		for b := m.n + 1; b <= m.top; b++ {
			if m.st[b] == b && m.s[b] == 1 && m.lab[b] == 0 {
				m.expand(b)
			}
		}
	}
}

// adjust moves the duals by the largest step that keeps them feasible; true
// when no more weight can be gained.
func (m *matcher) adjust() bool {
	d := int64(1) << 62
	for b := m.n + 1; b <= m.top; b++ {
		if m.st[b] == b && m.s[b] == 1 {
			d = min(d, m.lab[b]/2)
		}
	}
	for x := 1; x <= m.top; x++ {
		if m.st[x] == x && m.slack[x] != 0 {
			switch m.s[x] {
			case -1:
				d = min(d, m.delta(m.g[m.slack[x]][x]))
			case 0:
				d = min(d, m.delta(m.g[m.slack[x]][x])/2)
			}
		}
	}
	for u := 1; u <= m.n; u++ {
		switch m.s[m.st[u]] {
		case 0:
			if m.lab[u] <= d {
				return true
			}
			m.lab[u] -= d
		case 1:
			m.lab[u] += d
		}
	}
	for b := m.n + 1; b <= m.top; b++ {
		if m.st[b] == b {
			switch m.s[b] {
			case 0:
				m.lab[b] += d * 2
			case 1:
				m.lab[b] -= d * 2
			}
		}
	}
	return false
}
