"""What is asked of carriers over the network: prices, labels, where a parcel is. Never waited for longer than said."""
