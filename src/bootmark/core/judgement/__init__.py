"""Every number of the core that somebody judged: no work is known that gives it. A label, an adviser or a trial may say otherwise.

Beneath each: its unit, what it decides, whether it is judgement or common practice, and since when it stands so. A change of one changes
the rules' version, so that what rests on it is made again. Numbers of one pest stand in the catalogue, published ones beside their
source. A name stands once, and is called as `judgement.NAME`.
"""

from bootmark.core.judgement.calls import *
from bootmark.core.judgement.counts import *
from bootmark.core.judgement.hours import *
from bootmark.core.judgement.looks import *
from bootmark.core.judgement.naming import *
from bootmark.core.judgement.photos import *
from bootmark.core.judgement.programmes import *
from bootmark.core.judgement.releases import *
from bootmark.core.judgement.season import *
from bootmark.core.judgement.stand import *
from bootmark.core.judgement.walks import *
from bootmark.core.judgement.weather import *
