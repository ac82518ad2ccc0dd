// Command checkrecords checks an export of Mainstay's records without Mainstay
// and without its database. It is small on purpose: whoever doubts the program
// that wrote the records can read all of this one.
//
//	checkrecords [-photos FOLDER] [-head "1234.2 eight words"] records.jsonl
package main

import (
	"flag"
	"fmt"
	"os"
)

func main() {
	folder := flag.String("photos", "", "a folder with the photos, to compare their bytes too")
	head := flag.String("head", "", "a head known from outside, which the chain must lead through")
	flag.Parse()
	if flag.NArg() != 1 {
		fmt.Fprintln(os.Stderr, "usage: checkrecords [-photos FOLDER] [-head \"1234.2 eight words\"] records.jsonl")
		os.Exit(2)
	}
	f, err := os.Open(flag.Arg(0))
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(2)
	}
	defer func() { _ = f.Close() }()
	said, err := check(f, *folder, *head)
	if err != nil {
		fmt.Fprintln(os.Stderr, "Does not hold:", err)
		os.Exit(1)
	}
	fmt.Println(said)
}
