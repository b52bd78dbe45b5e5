"""Speed, as ratios against general-purpose libraries in the same run."""
