package main

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"text/tabwriter"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"gorm.io/gorm"

	"mainstay/internal/formats/logcsv"
	"mainstay/internal/platform/db"
)

const importRows = 20_000

var errUndo = errors.New("undo") // what the import wrote is measured and taken back

// importing measures the import of a log file on the large fleet beside COPY:
// of the same flights alone, and of everything that the import writes for them
// (flights, ledger and records). All of it is undone.
func importing(ctx context.Context, w *tabwriter.Writer, b *bed) error {
	for _, c := range []struct {
		name string
		ago  time.Duration
	}{{"from before the parts were fitted", 4 * 365 * 24 * time.Hour}, {"with the ledger of all fitted parts",
		(3*365 - 10) * 24 * time.Hour}} {
		file, err := logFile(ctx, b, b.svc.Clock.Now().Add(-c.ago))
		if err != nil {
			return err
		}
		var took time.Duration
		var flights, everything []table
		err = db.Tx(ctx, b.svc.DB, func(ctx context.Context, tx *gorm.DB) error {
			began := time.Now()
			rep, err := b.svc.Log.Import(ctx, bytes.NewReader(file))
			took = time.Since(began)
			if err != nil || rep.Accepted != importRows {
				return fmt.Errorf("import: %d accepted, %v, %w", rep.Accepted, rep.Refused, err)
			}
			if flights, everything, err = written(tx); err != nil {
				return err
			}
			return errUndo
		})
		if !errors.Is(err, errUndo) {
			return err
		}
		bare, err := copyIn(ctx, b.conn, flights)
		if err != nil {
			return err
		}
		all, err := copyIn(ctx, b.conn, everything)
		if err != nil {
			return err
		}
		line := func(base string, t time.Duration) {
			fmt.Fprintf(w, "500 aircraft: log import %s, %d rows at %.0f/s\t%s\t\t%s\t%s\t\t%.2f\t\t\n", c.name, importRows,
				importRows/took.Seconds(), short(took), base, short(t), float64(took)/float64(t))
		}
		line("COPY of the flights", bare)
		line("COPY of all it writes", all)
	}
	return nil
}

// logFile is a log of sorties spread over the fleet from a day on.
func logFile(ctx context.Context, b *bed, from time.Time) ([]byte, error) {
	var serials []string
	if err := b.svc.DB.WithContext(ctx).Raw("select serial from aircraft order by serial").Scan(&serials).Error; err != nil {
		return nil, err
	}
	rows := make([]logcsv.Row, importRows)
	for i := range rows {
		n := i / len(serials)
		start := from.AddDate(0, 0, n/4).Add(time.Duration(n%4) * time.Hour)
		rows[i] = logcsv.Row{ID: uuid.New(), TookOffAt: start, LandedAt: start.Add(10 * time.Minute),
			AircraftSerial: serials[i%len(serials)], PilotLogin: "chief",
			Packs: []string{fmt.Sprintf("P%04d",
				1+i%largeFleet.packs)}, Seconds: 600, Landings: 1, Purpose: "Spraying, north yard", Remarks: ""}
	}
	var out bytes.Buffer
	err := logcsv.Write(&out, rows)
	return out.Bytes(), err
}

type table struct {
	name string
	cols []string
	rows [][]any
}

// written reads back what an import of this transaction stored.
func written(tx *gorm.DB) (flights, everything []table, err error) {
	for _, t := range []struct{ name, of string }{
		{"flights", "x.source = 'import'"}, {"flight_use",
			"x.flight_id in (select id from flights where source = 'import')"}, {"records", "x.kind = 'flight'"},
	} {
		rows, err := tx.Raw("select x.* from " + t.name + " x where " + t.of).Rows()
		if err != nil {
			return nil, nil, err
		}
		out := table{name: t.name}
		if out.cols, err = rows.Columns(); err != nil {
			return nil, nil, err
		}
		types, err := rows.ColumnTypes()
		if err != nil {
			return nil, nil, err
		}
		for rows.Next() {
			vals, into := make([]any, len(out.cols)), make([]any, len(out.cols))
			for i := range vals {
				into[i] = &vals[i]
			}
			if err := rows.Scan(into...); err != nil {
				return nil, nil, err
			}
			for i, v := range vals {
				if s, ok := v.(string); ok && types[i].DatabaseTypeName() == "UUID" {
					id := uuid.MustParse(s)
					vals[i] = id[:]
				}
				if s, ok := v.(string); ok && types[i].DatabaseTypeName() == "_UUID" {
					var ids db.UUIDs
					if err := ids.Scan(s); err != nil {
						return nil, nil, err
					}
					vals[i] = []uuid.UUID(ids)
				}
			}
			out.rows = append(out.rows, vals)
		}
		if err := rows.Close(); err != nil {
			return nil, nil, err
		}
		if t.name == "flights" {
			flights = append(flights, out)
		}
		everything = append(everything, out)
	}
	return flights, everything, nil
}

// copyIn is how long COPY takes for the tables, undone afterwards.
func copyIn(ctx context.Context, conn *pgx.Conn, tables []table) (time.Duration, error) {
	tx, err := conn.Begin(ctx)
	if err != nil {
		return 0, err
	}
	defer func() { _ = tx.Rollback(ctx) }()
	began := time.Now()
	for _, t := range tables {
		if _, err := tx.CopyFrom(ctx, pgx.Identifier{t.name}, t.cols, pgx.CopyFromRows(t.rows)); err != nil {
			return 0, fmt.Errorf("copy %s: %w", t.name, err)
		}
	}
	return time.Since(began), nil
}
