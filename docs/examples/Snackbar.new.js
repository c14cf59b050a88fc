import React, { useLayoutEffect, useReducer, useRef, useState } from 'react';
import PropTypes from 'prop-types';
import classNames from 'classnames';

// This component doesn't use the javascript from MDL.
// This is the expected behavior and the reason is because it's not written in
// a way to make it easy to use with React.
const ANIMATION_LENGTH = 250;

const propTypes = {
    action: PropTypes.string,
    active: PropTypes.bool.isRequired,
    className: PropTypes.string,
    onActionClick: PropTypes.func,
    onTimeout: PropTypes.func.isRequired,
    timeout: PropTypes.number
};

function Snackbar(given) {
    const { timeout = 2750, ...others } = given;
    const props = { timeout, ...others };
    const [state, setState] = useReducer(
        (state, change) => ({ ...state, ...change }),
        {
            open: false
        }
    );
    const timeoutId = useRef(null);
    const clearTimeoutId = useRef(null);
    const latestProps = useRef(props);
    latestProps.current = props;
    const [previousProps, setPreviousProps] = useState({ given, props });

    const displayed = useRef(false);
    useLayoutEffect(() => {
        if (!displayed.current) {
            displayed.current = true;
            return;
        }
        if (timeoutId.current) {
            clearTimeout(timeoutId.current);
        }

        if (props.active) {
            timeoutId.current = setTimeout(clearTimer, props.timeout);
        }
    });

    useLayoutEffect(() => {
        return () => {
            if (timeoutId.current) {
                clearTimeout(timeoutId.current);
                timeoutId.current = null;
            }
            if (clearTimeoutId.current) {
                clearTimeout(clearTimeoutId.current);
                clearTimeoutId.current = null;
            }
        };
    }, []);

    function clearTimer() {
        timeoutId.current = null;
        setState({ open: false });

        clearTimeoutId.current = setTimeout(() => {
            clearTimeoutId.current = null;
            latestProps.current.onTimeout();
        }, ANIMATION_LENGTH);
    }

    if (previousProps.given !== given) {
        setPreviousProps({ given, props });
        setState({
            open: props.active
        });
        return null;
    }

    const { action, active, className, children,
        onActionClick, ...otherProps } = props;
    const { open } = state;

    const classes = classNames('mdl-snackbar', {
        'mdl-snackbar--active': open
    }, className);

    delete otherProps.onTimeout;
    delete otherProps.timeout;

    return (
        <div className={classes} aria-hidden={!open} {...otherProps}>
            <div className="mdl-snackbar__text">{active && children}</div>
            {active && action && <button className="mdl-snackbar__action" type="button" onClick={onActionClick}>{action}</button>}
        </div>
    );
}

Snackbar.propTypes = propTypes;

export default Snackbar;
