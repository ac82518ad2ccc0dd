package metar_test

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"mainstay/approved"
	"mainstay/core/metar"
)

// Reports with each group in each form, read and unreadable, as they are decoded.
func TestReportsAsApproved(t *testing.T) {
	var lines []string
	say := func(report string) {
		r, err := metar.Decode(report)
		b, jerr := json.Marshal(r)
		if jerr != nil {
			t.Fatal(jerr)
		}
		text := string(b)
		if err != nil {
			text = err.Error()
		}
		lines = append(lines, report+" => "+strings.ReplaceAll(text, "\n", " "))
	}
	groups := []struct {
		at    int
		forms []string
	}{
		{2, []string{"24006KT", "VRB02KT", "00000KT", "24006G15KT", "24015G06KT", "240P49MPS", "24006MPS", "36100KT",
			"37006KT", "24506KT", "240V300", "360V010", "361V010", "010V360", "010V361", "/////KT", "24006", "24O06KT",
			"24006KMH"}},
		{3, []string{"10SM", "P6SM", "M1/4SM", "1/2SM", "1 1/2SM", "9999", "0000", "3000", "1500SW", "CAVOK", "////",
			"////SM", "99999", "1/0SM", "2 1/2", "R25/1200", "3000NDV"}},
		{4, []string{"CLR", "SKC", "NSC", "NCD", "FEW020", "SCT035 BKN050", "OVC001", "VV002", "VV///", "FEW020CB",
			"SCT020TCU", "OVC0O8", "//////", "BKN", "FEW999", "FEW1000", "RA CLR", "-RA OVC010", "+TSRA OVC020", "VCTS CLR",
			"FZFG VV001", "// CLR", "HZ CLR", "+XX CLR", "RASN CLR"}},
		{5, []string{"16/06", "M02/M05", "16/", "16/XX", "06/16", "M00/M00", "99/99", "//////", "1/6", "16/06/"}},
		{6, []string{"A3000", "Q1013", "Q////", "A////", "A300", "Q10130", "A3O00", "Q0850", "A3300", "Q1101"}},
		{7, []string{"RMK AO2 SLP123", "TEMPO 3000 TSRA", "BECMG 30020G35KT", "NOSIG", "TEMPO FM1700 TL1830 25030KT",
			"INTER 2000 SHRA BKN010", "PROB30 TEMPO 1015/1017 0500 FG", "RERA", "WS R25", "RMK TEMPO TS", "TEMPO XXXX", "AUTO",
			"COR", "BECMG AT1800 CAVOK", "FM101800 24010KT 6000 OVC010"}},
	}
	base := []string{"METAR", "KZZT 101653Z", "24006KT", "10SM", "FEW060", "16/06", "A3000", ""}
	for _, g := range groups {
		for _, form := range append([]string{""}, g.forms...) {
			words := append([]string{}, base...)
			words[g.at] = form
			say(strings.Join(strings.Fields(strings.Join(words, " ")), " "))
		}
	}
	for _, head := range []string{"KZZT 101653Z", "SPECI KZZT 101653Z", "METAR COR KZZT 101653Z", "KZZT 321653Z",
		"KZZT 102560Z", "KZZT 10165Z", "101653Z", "KZZT", "METAR KZZT NIL", "METAR KZZT 101653Z NIL", ""} {
		say(fmt.Sprintf("%s 24006KT 10SM CLR 16/06 A3000", head))
		say(head)
	}
	approved.Text(t, "reports", lines)
}
