package db

import (
	"database/sql/driver"
	"fmt"
	"reflect"

	"github.com/jackc/pgx/v5/pgtype"
)

// Array is a column or value of several numbers, texts or times. A nil one is null.
type Array[T any] []T

var arrays = pgtype.NewMap()

// oid is the PostgreSQL type of an array of these.
func (a Array[T]) oid() (uint32, error) {
	t, ok := arrays.TypeForValue([]T(a))
	if !ok {
		return 0, fmt.Errorf("no PostgreSQL array holds %v", reflect.TypeFor[T]())
	}
	return t.OID, nil
}

// Value writes it as PostgreSQL reads it.
func (a Array[T]) Value() (driver.Value, error) {
	if a == nil {
		return nil, nil
	}
	oid, err := a.oid()
	if err != nil {
		return nil, err
	}
	b, err := arrays.Encode(oid, pgtype.TextFormatCode, []T(a), nil)
	return string(b), err
}

// Scan reads what PostgreSQL writes.
func (a *Array[T]) Scan(src any) error {
	var out []T
	if src != nil {
		if err := arrays.SQLScanner(&out).Scan(src); err != nil {
			return err
		}
		if out == nil {
			out = []T{}
		}
	}
	*a = out
	return nil
}
