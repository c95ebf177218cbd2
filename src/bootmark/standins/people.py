"""Prints who can sign in to the demo."""

from bootmark.standins.estate import PASSWORD, PEOPLE

if __name__ == "__main__":
    print("Sign in as")
    for name, email, role, _ in PEOPLE:
        print(f"  {email:24} {name}, {role}")
    print(f"The password is {PASSWORD} for all of them.")
