//! Splitting a whole number into whole parts that add up to it exactly.

/// Splits `total` in proportion to `weights` by the method of largest remainder (Hamilton); ties
/// go to the earlier part. The parts always add up to `total`, unless all weights are zero: then
/// every part is zero, as there is nobody to charge.
#[must_use]
pub fn apportion(total: u64, weights: &[u64]) -> Vec<u64> {
    let sum: u128 = weights.iter().map(|&w| u128::from(w)).sum();
    if sum == 0 {
        return vec![0; weights.len()];
    }
    let mut parts = Vec::with_capacity(weights.len());
    let mut remainders = Vec::with_capacity(weights.len());
    let mut given = 0;
    for (at, &weight) in weights.iter().enumerate() {
        let scaled = u128::from(total) * u128::from(weight);
        // A part never exceeds the total, so it fits again.
        let part = u64::try_from(scaled / sum).unwrap_or(total);
        parts.push(part);
        remainders.push((scaled % sum, at));
        given += part;
    }
    remainders.sort_by(|a, b| b.0.cmp(&a.0).then(a.1.cmp(&b.1)));
    let missing = usize::try_from(total - given).unwrap_or(usize::MAX);
    for &(_, at) in remainders.iter().take(missing) {
        parts[at] += 1;
    }
    parts
}

#[cfg(test)]
mod tests {
    use super::apportion;
    use proptest::prelude::*;

    #[test]
    fn ties_go_to_the_earlier_part() {
        assert_eq!(apportion(2, &[1, 1, 1]), [1, 1, 0]);
        assert_eq!(apportion(5, &[0, 0]), [0, 0]);
        assert_eq!(apportion(7, &[0, 3]), [0, 7]);
    }

    proptest! {
        #[test]
        fn parts_add_up_and_stay_within_one_of_the_exact_share(
            total in 0_u64..1 << 40,
            weights in proptest::collection::vec(0_u64..1 << 30, 1..40),
        ) {
            let sum: u64 = weights.iter().sum();
            let parts = apportion(total, &weights);
            prop_assert_eq!(parts.iter().sum::<u64>(), if sum == 0 { 0 } else { total });
            for (part, weight) in parts.iter().zip(&weights) {
                if sum > 0 {
                    let exact = total as f64 * *weight as f64 / sum as f64;
                    prop_assert!((*part as f64 - exact).abs() <= 1.0 + exact * 1e-9);
                }
            }
        }
    }
}
