"""What is proposed and why: proposals, balance, what if, years to keep."""
