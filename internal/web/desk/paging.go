package desk

import "strconv"

// Paging is the way through a long list.
type Paging struct {
	From, To, Of int    // rows of the page: from the first to before the last
	Newer, Older string // addresses, "" where there is none
}

// Shown tells whether there is more than one page.
func (p Paging) Shown() bool { return p.Newer != "" || p.Older != "" }

// First row of the page, as people count.
func (p Paging) First() int { return p.From + 1 }

// PagesOf cuts a list of so many rows into pages; page is the number that an address asks
// for, and the first where it asks for none that there is.
func PagesOf(rows, each int, page string, href func(page string) string) Paging {
	n, err := strconv.Atoi(page)
	if last := max(1, (rows+each-1)/each); err != nil || n < 1 {
		n = 1
	} else if n > last {
		n = last
	}
	p := Paging{From: (n - 1) * each, To: min(n*each, rows), Of: rows}
	if n > 1 {
		p.Newer = href(strconv.Itoa(n - 1))
	}
	if p.To < rows {
		p.Older = href(strconv.Itoa(n + 1))
	}
	return p
}
