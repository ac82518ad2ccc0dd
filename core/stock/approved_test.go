package stock_test

import (
	"fmt"
	"testing"

	"mainstay/approved"
	"mainstay/core/stock"
)

// Every order over shelves, minima, delivery days and needs near where they decide.
func TestOrdersAsApproved(t *testing.T) {
	var lines []string
	for _, onHand := range []int{0, 1, 2, 4} {
		for _, minimum := range []int{0, 1, 2} {
			for _, days := range []int{0, 6, 14, 15, 21} {
				for _, needs := range [][]int{nil, {-3}, {0}, {20}, {5, 20}, {20, 20, 40}} {
					o, err := stock.Reorder(stock.Line{OnHand: onHand, Minimum: minimum, DeliveryDays: days}, in(needs...), today)
					lines = append(lines, fmt.Sprintf("%d on hand, minimum %d, %d days, needs %v: %d %s %s %v", onHand, minimum, days,
						needs, o.Quantity, o.Verdict, o.Sentence, err))
				}
			}
		}
	}
	approved.Text(t, "orders", lines)
}
