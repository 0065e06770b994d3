package storage_test

import (
	"fmt"

	"wakefield.example/core/storage"
)

// Four drives of 4 TB in RAID 5, a tenth kept free, hold 10.8 TB. One channel writes 250 GB a day and may keep them for
// 30 days, the other 50 GB a day without a limit: the first leaves its share of the disk to the second.
func ExampleTypical() {
	array := storage.Array{
		Drives: []storage.Bytes{4000 * storage.GB, 4000 * storage.GB, 4000 * storage.GB, 4000 * storage.GB},
		Layout: storage.RAID5, Reserve: 0.1,
	}
	fmt.Printf("%.0f GB\n", float64(array.Usable()/storage.GB))
	lane := storage.Rate{Daily: 250 * storage.GB, Limit: storage.Limit(250*storage.GB, 30, 0)}
	gate := storage.Rate{Daily: 50 * storage.GB, Limit: storage.Forever}
	fmt.Printf("%.1f days\n", float64(storage.Typical(array.Usable(), []storage.Rate{lane, gate})))
	fmt.Printf("%.1f days with the gate alone\n", float64(storage.Typical(array.Usable(), []storage.Rate{gate})))
	// Output:
	// 10800 GB
	// 66.0 days
	// 216.0 days with the gate alone
}
