"""The only place that speaks SQL."""
