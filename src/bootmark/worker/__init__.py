"""The background worker, an edge as the interface is: it reads stations over HTTP, and reckons the forecasts of big farms."""
