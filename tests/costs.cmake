# The longest tests are begun first: so none of them runs on alone at the end. Names as ctest has them; one that is not there is an
# error, and its line goes.
foreach(long
        "a scan is laid on another: 30 % in common, noise 0.3 mm, every tenth point a stray, 100 mm and 5° off"
        "every kind of change: refused and nothing changed, or taken, and its inverse gives the build back"
        "each finding appears when its cause does"
        "a cage tube's copes lie on what they meet, and so do their templates: on the solid"
        "500 random plans: none is shut for ever"
        "the ± of lock angles and circle covers what it says")
    set_tests_properties("${long}" PROPERTIES COST 50)
endforeach()
