package db

import (
	"context"

	"gorm.io/gorm"
)

// Each runs a query and hands every row to take, which scans it itself. Use it
// where a page reads thousands of rows: scanning by reflection costs several
// times what the query does.
func Each(ctx context.Context, g *gorm.DB, sql string, args []any,
	take func(scan func(dest ...any) error) error) error {
	rows, err := g.WithContext(ctx).Raw(sql, args...).Rows()
	if err != nil {
		return err
	}
	defer func() { _ = rows.Close() }()
	for rows.Next() {
		if err := take(rows.Scan); err != nil {
			return err
		}
	}
	return rows.Err()
}
